package dev.paseo.core.audit;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.core.signature.KeyRing;
import dev.paseo.core.signature.SigningPair;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import org.junit.jupiter.api.Test;

class ExportCheckTest {

    private static final Instant NOON = Instant.parse("2026-11-23T12:00:00Z");
    private static final SigningPair KEY = SigningPair.fresh();
    private static final SigningPair OTHER = SigningPair.fresh();

    private static String body(long position) {
        return "{\"at\":\"2026-11-23T12:00:00Z\",\"details\":{\"leaf\":\",\\\"leaf\\\":\\\"\"},\"what\":\"done "
                + position + "\"}";
    }

    private static Exported.Head head(MerkleTree tree, SigningPair by) {
        return head(tree, by, NOON);
    }

    private static Exported.Head head(MerkleTree tree, SigningPair by, Instant at) {
        TreeHead head = new TreeHead(tree.size(), HexFormat.of().formatHex(tree.root()), at);
        return new Exported.Head(head, by.sign(head.bytes()));
    }

    /** Entries from one to another, with heads behind every third and the last. */
    private static List<String> export(long from, long to, SigningPair key) {
        MerkleTree tree = new MerkleTree();
        List<String> lines = new ArrayList<>();
        for (long position = 0; position <= to; position++) {
            if (position == from) {
                lines.add(new Exported.Start(from, tree.roots(), key.text()).line());
            }
            if (position == to) {
                break;
            }
            byte[] hash = MerkleTree.leafHash(body(position).getBytes(StandardCharsets.UTF_8));
            tree.add(hash);
            if (position >= from) {
                lines.add(new Exported.Entry(body(position), HexFormat.of().formatHex(hash), position).line());
                if (tree.size() % 3 == 0 || tree.size() == to) {
                    lines.add(head(tree, key).line());
                }
            }
        }
        lines.add(new Exported.End(to).line());
        return lines;
    }

    private static ExportCheck.Checked check(List<String> lines) {
        return ExportCheck.check(lines.iterator(), Optional.of(KEY.text()), List.of());
    }

    /** What is found first where the export of ten entries is changed. */
    private static String found(UnaryOperator<List<String>> change) {
        List<String> findings = check(change.apply(new ArrayList<>(export(0, 10, KEY)))).findings();
        return findings.isEmpty() ? "nothing" : findings.getFirst();
    }

    private static int lineOf(List<String> lines, String part) {
        for (int at = 0; at < lines.size(); at++) {
            if (lines.get(at).contains(part)) {
                return at;
            }
        }
        throw new AssertionError(part);
    }

    @Test
    void whatWasNotChangedPassesFromWhereverItBegins() {
        for (long from = 0; from <= 12; from++) {
            for (long to = from; to <= 12; to++) {
                ExportCheck.Checked checked = check(export(from, to, KEY));
                assertEquals(List.of(), checked.findings(), from + " to " + to);
                assertEquals(to - from, checked.entries());
                assertEquals(from == to ? 0 : to, checked.covered());
            }
        }
    }

    @Test
    void aCharacterThatIsChangedIsFoundWithItsPosition() {
        assertEquals("entry 4 (line 7) was changed: it does not agree with its leaf hash", found(lines -> {
            int at = lineOf(lines, "done 4");
            lines.set(at, lines.get(at).replace("done 4", "done 5"));
            return lines;
        }));
    }

    @Test
    void anEntryThatIsChangedWithItsLeafIsFoundByTheNextHead() {
        assertEquals("an entry from 3 to 5 was changed together with its leaf hash: the tree does not agree with the "
                + "signed head of 6 entries", found(lines -> {
                    String other = "{\"what\":\"nothing\"}";
                    lines.set(lineOf(lines, "done 4"), new Exported.Entry(other, HexFormat.of()
                            .formatHex(MerkleTree.leafHash(other.getBytes(StandardCharsets.UTF_8))), 4).line());
                    return lines;
                }));
    }

    @Test
    void linesThatAreSwappedLeftOutCutOrAddedAreFound() {
        assertEquals("line 3 is entry 2 where entry 1 should stand: one was left out, put in, or two were swapped",
                found(lines -> {
                    lines.add(2, lines.remove(3));
                    return lines;
                }));
        assertEquals("line 3 is entry 2 where entry 1 should stand: one was left out, put in, or two were swapped",
                found(lines -> {
                    lines.remove(2);
                    return lines;
                }));
        assertEquals("it is cut short behind entry 9: its last line is missing",
                found(lines -> lines.subList(0, lines.size() - 1)));
        assertEquals("it is cut short behind entry 3: its last line is missing", found(lines -> lines.subList(0, 6)));
        assertEquals("line 6 is in no form that an export has: it was changed or cut", found(lines -> {
            lines.set(5, lines.get(5).substring(0, 20));
            return lines.subList(0, 6);
        }));
        assertEquals("line 17 stands behind the end", found(lines -> {
            lines.add(lines.get(2));
            return lines;
        }));
        assertEquals("line 3 begins an export in the middle of one", found(lines -> {
            lines.add(2, lines.getFirst());
            return lines;
        }));
        assertEquals("the first line is not the beginning of an export", found(lines -> {
            lines.removeFirst();
            return lines;
        }));
        assertEquals("there is nothing in it", check(List.of()).findings().getFirst());
        assertEquals("the end tells of 11 entries, but 10 are there", found(lines -> {
            lines.set(lines.size() - 1, new Exported.End(11).line());
            return lines;
        }));
        assertEquals("no signed head covers the entries from 9 on", found(lines -> {
            lines.remove(lines.size() - 2);
            return lines;
        }));
        assertEquals("the beginning does not say what stands before entry 1", found(lines -> {
            lines.set(0, new Exported.Start(1, List.of(), KEY.text()).line());
            return lines;
        }));
    }

    @Test
    void aKeyOfAnotherServiceIsFound() {
        List<String> findings = check(export(0, 4, OTHER)).findings();
        assertEquals(List.of("the export names another key than the one that was given: it is of another service, "
                + "or was changed"), findings);
        ExportCheck.Checked believed = ExportCheck.check(export(0, 4, OTHER).iterator(), Optional.empty(), List.of());
        assertTrue(believed.passed(), "by its own key it is good: whose key it is, the print says");
        assertEquals(64, believed.keyPrint().length());
        assertThrows(IllegalArgumentException.class,
                () -> ExportCheck.check(List.of("").iterator(), Optional.of("no key"), List.of()));
    }

    @Test
    void headsThatSomebodyKeptAreHeldAgainstIt() {
        MerkleTree tree = new MerkleTree();
        for (long position = 0; position < 5; position++) {
            tree.add(MerkleTree.leafHash(body(position).getBytes(StandardCharsets.UTF_8)));
        }
        Exported.Head good = head(tree, KEY);
        assertEquals(List.of(), kept(good));
        assertEquals(List.of("the head of 5 entries that was kept elsewhere is not signed by this key"),
                kept(head(tree, OTHER)));
        MerkleTree another = MerkleTree.of(4, List.of(new byte[32]));
        assertEquals(List.of("the head of 4 entries that was kept elsewhere is of another trail, or this one was "
                + "changed"), kept(head(another, KEY)));
        MerkleTree later = MerkleTree.of(16, List.of(new byte[32]));
        assertEquals(List.of("the head of 16 entries that was kept elsewhere lies outside of this export, which has "
                + "entries 0 to 9"), kept(head(later, KEY)));
    }

    private static List<String> kept(Exported.Head head) {
        return ExportCheck.check(export(0, 10, KEY).iterator(), Optional.of(KEY.text()), List.of(head)).findings();
    }

    @Test
    void noSingleCharacterCanBeChangedUnseen() {
        List<String> lines = export(2, 6, KEY);
        for (int at = 0; at < lines.size(); at++) {
            for (int character = 0; character < lines.get(at).length(); character++) {
                StringBuilder changed = new StringBuilder(lines.get(at));
                changed.setCharAt(character, changed.charAt(character) == '7' ? '8' : '7');
                List<String> all = new ArrayList<>(lines);
                all.set(at, changed.toString());
                int line = at + 1;
                int place = character;
                assertTrue(!check(all).passed(), () -> "line " + line + ", character " + place + ": " + changed);
            }
        }
    }

    @Test
    void whatIsWrittenIsRead() {
        export(5, 12, KEY).forEach(line -> assertEquals(line, Exported.read(line).orElseThrow().line()));
        assertTrue(Exported.read("{\"end\":9999999999999999999}").isEmpty());
        assertTrue(Exported.read("{\"head\":{\"at\":\"noon\",\"root\":\"" + "0".repeat(64)
                + "\",\"signature\":\"AA==\",\"size\":1}}").isEmpty());
    }

    /** Wherever it was cut, what stays and what is taken away from there on verify together. */
    @Test
    void fromWhereverItWasCutItGoesOn() throws IOException {
        byte[] whole = (String.join("\n", export(0, 5, KEY)) + "\n").getBytes(StandardCharsets.UTF_8);
        Set<Resumption> gone = new HashSet<>();
        for (int cut = 0; cut <= whole.length; cut++) {
            Optional<Resumption> kept = Resumption.of(new ByteArrayInputStream(whole, 0, cut));
            if (kept.isEmpty()) {
                assertTrue(cut <= export(0, 5, KEY).getFirst().length(), "only without its first line");
                continue;
            }
            if (!gone.add(kept.get())) {
                continue;
            }
            List<String> rest = export(kept.get().next(), 8, KEY);
            List<String> lines = new ArrayList<>(new String(whole, 0, (int) kept.get().bytes(), StandardCharsets.UTF_8)
                    .lines().toList());
            lines.addAll(rest.subList(1, rest.size()));
            ExportCheck.Checked checked = ExportCheck.check(lines.iterator(), Optional.of(KEY.text()), List.of());
            assertEquals(List.of(), checked.findings(), "cut after " + cut);
            assertEquals(8, checked.entries());
        }
        assertEquals(Optional.empty(),
                Resumption.of(new ByteArrayInputStream("{}\n".getBytes(StandardCharsets.UTF_8))));
    }

    private static final Instant EVENING = NOON.plus(Duration.ofHours(6));

    /** Ten entries, of which the key was renewed behind the fifth; heads behind each. */
    private static List<String> renewed(SigningPair before, SigningPair after) {
        MerkleTree tree = new MerkleTree();
        List<String> lines = new ArrayList<>();
        lines.add(new Exported.Start(0, List.of(), before.text()).line());
        lines.add(new Exported.Renewed(before.renewedBy(after, EVENING)).line());
        for (long position = 0; position < 10; position++) {
            byte[] hash = MerkleTree.leafHash(body(position).getBytes(StandardCharsets.UTF_8));
            tree.add(hash);
            lines.add(new Exported.Entry(body(position), HexFormat.of().formatHex(hash), position).line());
            lines.add((position < 5 ? head(tree, before) : head(tree, after, EVENING.plusSeconds(position))).line());
        }
        lines.add(new Exported.End(10).line());
        return lines;
    }

    private static List<String> findings(List<String> lines, String given) {
        return ExportCheck.check(lines.iterator(), Optional.of(given), List.of()).findings();
    }

    @Test
    void aTrailWhoseKeyWasRenewedVerifiesByEitherKey() {
        List<String> lines = renewed(KEY, OTHER);
        for (String given : List.of(KEY.text(), OTHER.text(), KEY.ring().with(KEY.renewedBy(OTHER, EVENING)).text())) {
            assertEquals(List.of(), findings(lines, given));
        }
        ExportCheck.Checked believed = ExportCheck.check(lines.iterator(), Optional.empty(), List.of());
        assertEquals(List.of(), believed.findings());
        assertEquals(OTHER.ring().terms().getLast().print(), believed.keyPrint());
        assertEquals("the export names another key than the one that was given: it is of another service, or was "
                + "changed", findings(lines, SigningPair.fresh().text()).getFirst());
        lines.forEach(line -> assertEquals(line, Exported.read(line).orElseThrow().line()));
    }

    /** Gone on with after the key was renewed, the renewal comes among the entries, and may come twice. */
    @Test
    void aRenewalMayStandAnywhereBeforeWhatItSigned() {
        List<String> lines = renewed(KEY, OTHER);
        lines.add(11, lines.get(1));
        assertEquals(List.of(), findings(lines, KEY.text()));
        lines.remove(1);
        assertEquals(List.of(), findings(lines, OTHER.text()));
        lines.remove(10);
        assertEquals("the head of 6 entries (line 13) is not signed by this key",
                findings(lines, KEY.text()).getFirst());
    }

    @Test
    void aRenewalThatTheKeyBeforeHasNotSignedIsFound() {
        List<String> lines = renewed(KEY, OTHER);
        lines.set(1, new Exported.Renewed(new KeyRing.Renewal(OTHER.text(), EVENING, OTHER.sign(new byte[0]))).line());
        assertEquals("line 2 renews the key, and the key before it has not signed that",
                findings(lines, KEY.text()).getFirst());
    }

    /** Whoever has the old key can say what they like before the renewal; it does not count by itself. */
    @Test
    void aKeyThatWasRenewedSignsNothingMore() {
        List<String> late = renewed(KEY, OTHER);
        MerkleTree tree = new MerkleTree();
        for (long position = 0; position < 10; position++) {
            tree.add(MerkleTree.leafHash(body(position).getBytes(StandardCharsets.UTF_8)));
        }
        late.set(late.size() - 2, head(tree, KEY, EVENING.plusSeconds(3600)).line());
        assertEquals("the head of 10 entries (line 22) is not signed by a key that was in force when it says",
                findings(late, OTHER.text()).getFirst());
        late.set(late.size() - 2, head(tree, KEY).line());
        assertEquals(List.of("no signed head covers the entries from 9 on"), findings(late, OTHER.text()));
    }
}
