/** A part of the docs under one heading. */
export interface Section {
  /** The path of its page, such as how-to/gate. */
  page: string;
  /** Of the page. */
  title: string;
  heading: string;
  /** Of its heading on the page: what stands after # in its address. */
  slug: string;
  text: string;
}

/** Lower case, without punctuation, a dash for each space; a second one of a name is counted. */
export function slugs(): (heading: string) => string {
  const seen = new Map<string, number>();
  return (heading) => {
    const plain = heading
      .toLowerCase()
      .replaceAll(/[^\p{L}\p{N}\p{M}\s_-]/gu, "")
      .replaceAll(/\s/g, "-");
    const times = seen.get(plain) ?? 0;
    seen.set(plain, times + 1);
    return times === 0 ? plain : `${plain}-${times}`;
  };
}

/** The sections of a page, in their order; what stands in a fence is text. */
export function sectionsOf(page: string, markdown: string): Section[] {
  const sections: Section[] = [];
  const slug = slugs();
  let fenced = false;
  for (const line of markdown.split("\n")) {
    if (line.trimStart().startsWith("```")) fenced = !fenced;
    const heading = fenced ? undefined : /^#{1,4} +(.+)$/.exec(line)?.[1]?.replaceAll("`", "");
    if (heading) {
      sections.push({ page, title: sections[0]?.heading ?? heading, heading, slug: slug(heading), text: "" });
    } else {
      const last = sections.at(-1);
      if (last) last.text += `${line}\n`;
    }
  }
  return sections;
}

const MOST = 20;

const count = (text: string, word: string) => text.split(word).length - 1;

/** What has every word, the best first: in the heading before in the title of the page, there before in the text. */
export function search(sections: Section[], sought: string): Section[] {
  const words = sought.toLowerCase().split(/\s+/).filter(Boolean);
  if (words.length === 0) return [];
  return sections
    .map((section) => {
      const heading = section.heading.toLowerCase();
      const title = section.title.toLowerCase();
      const text = section.text.toLowerCase();
      const points = words.map(
        (word) => 20 * count(heading, word) + 5 * count(title, word) + Math.min(4, count(text, word)),
      );
      return { section, points: points.includes(0) ? 0 : points.reduce((sum, each) => sum + each, 0) };
    })
    .filter(({ points }) => points > 0)
    .sort((a, b) => b.points - a.points)
    .slice(0, MOST)
    .map(({ section }) => section);
}

/** The line of a section that has the first of these words. */
export function around(section: Section, sought: string): string {
  const word = sought.toLowerCase().split(/\s+/)[0] ?? "";
  const lines = section.text.split("\n").filter((line) => line.trim() && !line.startsWith("```"));
  return (lines.find((line) => line.toLowerCase().includes(word)) ?? lines[0] ?? "").slice(0, 160);
}
