/** The docs as they stand in the repository, in one part that is loaded when somebody reads or searches them. */
export const TEXTS = import.meta.glob<string>("../../../docs/{start,how-to,explanation,reference}/*.md", {
  query: "?raw",
  import: "default",
  eager: true,
});

export const PICTURES = import.meta.glob<string>(
  ["../../../docs/pictures/*.svg", "../../../docs/screenshots/chain.png"],
  {
    query: "?url",
    import: "default",
    eager: true,
  },
);
