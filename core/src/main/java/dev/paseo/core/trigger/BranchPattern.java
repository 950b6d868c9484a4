package dev.paseo.core.trigger;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;

/**
 * A pattern of names or paths: {@code *} stands for any characters but a slash, {@code **} for any characters at all, a
 * leading or inner <code>**&#47;</code> also for nothing, {@code ?} for one character but a slash; everything else
 * stands for itself.
 */
public final class BranchPattern {

    private static final int LONGEST = 200;

    /** What one part of a pattern takes of a name. */
    private enum Kind {
        /** The sign itself. */
        SIGN,
        /** One sign but a slash. */
        ONE,
        /** Any signs but a slash; also none. */
        WITHIN,
        /** Any signs; also none. */
        ACROSS,
        /** Nothing, or what {@link #FOLDERS} takes: it always stands before that. */
        MAYBE,
        /** Any signs up to a slash, and that. */
        FOLDERS
    }

    private record Part(Kind kind, char sign) {}

    private final String text;
    private final List<Part> parts;

    public BranchPattern(String text) {
        if (text.isBlank() || text.length() > LONGEST) {
            throw new IllegalArgumentException("a pattern has 1 to " + LONGEST + " characters, got '" + text + "'");
        }
        this.text = text;
        this.parts = parts(text);
    }

    /**
     * Takes time in proportion to the name's length times the pattern's, whatever both are: all parts that may be
     * reached are followed at once, and none is gone back to.
     */
    public boolean matches(String name) {
        BitSet reached = new BitSet(parts.size() + 1);
        reach(reached, 0);
        for (int at = 0; at < name.length() && !reached.isEmpty(); at++) {
            BitSet next = new BitSet(parts.size() + 1);
            for (int part = reached.nextSetBit(0); part >= 0
                    && part < parts.size(); part = reached.nextSetBit(part + 1)) {
                take(parts.get(part), part, name.charAt(at), next);
            }
            reached = next;
        }
        return reached.get(parts.size());
    }

    private void take(Part part, int number, char sign, BitSet next) {
        switch (part.kind()) {
            case SIGN -> reachIf(sign == part.sign(), next, number + 1);
            case ONE -> reachIf(sign != '/', next, number + 1);
            case WITHIN -> reachIf(sign != '/', next, number);
            case ACROSS -> reach(next, number);
            case FOLDERS -> {
                next.set(number);
                reachIf(sign == '/', next, number + 1);
            }
            case MAYBE -> {}
        }
    }

    private void reachIf(boolean may, BitSet reached, int number) {
        if (may) {
            reach(reached, number);
        }
    }

    /** What takes nothing is passed at once. */
    private void reach(BitSet reached, int number) {
        for (int at = number; !reached.get(at); at++) {
            reached.set(at);
            Kind kind = at < parts.size() ? parts.get(at).kind() : Kind.SIGN;
            if (kind == Kind.MAYBE) {
                reach(reached, at + 2);
            } else if (kind != Kind.WITHIN && kind != Kind.ACROSS) {
                return;
            }
        }
    }

    /** Whether it stands for more than one name. */
    boolean wild() {
        return text.contains("*") || text.contains("?");
    }

    private static List<Part> parts(String text) {
        List<Part> parts = new ArrayList<>();
        for (int at = 0; at < text.length(); at++) {
            char sign = text.charAt(at);
            if (text.startsWith("**/", at) && (at == 0 || text.charAt(at - 1) == '/')) {
                parts.add(new Part(Kind.MAYBE, sign));
                parts.add(new Part(Kind.FOLDERS, sign));
                at += 2;
            } else if (text.startsWith("**", at)) {
                parts.add(new Part(Kind.ACROSS, sign));
                at++;
            } else {
                parts.add(new Part(sign == '*' ? Kind.WITHIN : sign == '?' ? Kind.ONE : Kind.SIGN, sign));
            }
        }
        return List.copyOf(parts);
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof BranchPattern same && same.text.equals(text);
    }

    @Override
    public int hashCode() {
        return text.hashCode();
    }

    @Override
    public String toString() {
        return text;
    }
}
