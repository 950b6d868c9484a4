package dev.paseo.core.gate;

import dev.paseo.core.gate.Criterion.Approvals;
import dev.paseo.core.gate.Criterion.Exclusion;
import dev.paseo.core.gate.Judgement.State;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Stream;

/**
 * Approvals: who may decide, and which decisions count. Everyone who is asked has one voice. Who stands in for another
 * gives that one's voice, so that the two together count once.
 */
public final class Approving {

    private static final int MOST_NAMED = 3;

    private Approving() {}

    static Judgement judge(Approvals wanted, GateFacts facts, Instant now) {
        Map<String, GateDecision> counted = counted(wanted, facts, now);
        boolean unknown = wanted.notBy().contains(Exclusion.AUTHORS) && !facts.unknown().isEmpty();
        int count = wanted.count() + (unknown && !wanted.asksWho() ? 1 : 0);
        String name = counted.size() + " of " + count + (count == 1 ? " approval" : " approvals");
        Optional<String> no = rejection(facts);
        if (no.isPresent()) {
            return new Judgement(State.NOT_MET, name, "R" + no.get().substring(1) + ".", Optional.empty());
        }
        String said = String.join(", ", counted.entrySet().stream().map(each -> each.getValue().by() + " said yes"
                + (each.getKey().equals(each.getValue().by()) ? "" : " in place of " + each.getKey())).toList());
        String who = unknown ? " " + unknown(wanted, facts) : "";
        if (counted.size() >= count) {
            return unknown && wanted.asksWho()
                    ? new Judgement(State.ASKED, name, (said.isEmpty() ? "" : said + ".") + who, Optional.empty())
                    : new Judgement(State.MET, name, said + ".", Optional.empty());
        }
        Set<String> open = new TreeSet<>(voices(wanted, facts, now));
        open.removeAll(counted.keySet());
        boolean nobody = open.size() < count - counted.size();
        String sentence = (said.isEmpty() ? "" : said + ". ") + "Waits for "
                + String.join(" or ", asked(wanted, facts, now))
                + (wanted.notBy().isEmpty() ? "" : ", not " + exclusions(wanted)) + "." + who + voided(facts)
                + (nobody ? " Nobody is left who may: ask an administrator to add members to "
                        + String.join(" or ", wanted.from()) + "." : "");
        Optional<Instant> escalates = wanted.escalation().map(more -> facts.requestedAt().plus(more.after()))
                .filter(now::isBefore);
        Optional<Instant> expires = wanted.within().map(facts.requestedAt()::plus);
        return new Judgement(State.ASKED, name, sentence,
                Stream.of(escalates, expires).flatMap(Optional::stream).min(Comparator.naturalOrder()), nobody);
    }

    private static String unknown(Approvals wanted, GateFacts facts) {
        List<String> all = facts.unknown().stream().sorted().toList();
        String some = String.join(", ", all.stream().limit(MOST_NAMED).toList())
                + (all.size() > MOST_NAMED ? " and " + (all.size() - MOST_NAMED) + " others" : "");
        boolean pushers = all.stream().anyMatch(each -> each.startsWith(GateFacts.PUSHER));
        boolean addresses = all.stream().anyMatch(each -> !each.startsWith(GateFacts.PUSHER));
        String ways = String.join("; ",
                Stream.of(addresses ? "paseo account change NAME --add-address ADDRESS" : "",
                        pushers ? "paseo component pushed COMPONENT COMMIT --by NAME" : "")
                        .filter(way -> !way.isEmpty()).toList());
        return "Who is " + some + "? " + (wanted.asksWho() ? "It waits until an administrator says who that is"
                : "They belong to no account and wrote or pushed some of it, so one more approval is wanted; or an "
                        + "administrator says who that is")
                + " (" + ways + ").";
    }

    /** The approvals that were of something else; not those of who has approved this since. */
    static List<GateDecision> outdated(GateFacts facts) {
        return latest(facts).stream()
                .filter(decision -> decision.yes() && !decision.digest().equals(facts.subject().digest())).toList();
    }

    /** What was given and no longer counts, and why. */
    static String voided(GateFacts facts) {
        List<GateDecision> old = outdated(facts);
        if (old.isEmpty()) {
            return "";
        }
        Set<String> changed = new TreeSet<>(old.stream().flatMap(decision -> decision.subject().stream())
                .flatMap(seen -> facts.subject().changedSince(seen).stream()).toList());
        String what = changed.isEmpty() ? "what was approved has changed"
                : String.join(" and ", changed) + " changed since";
        return " What " + String.join(" and ", old.stream().map(GateDecision::by).toList())
                + " approved no longer counts: "
                + what
                + (changed.equals(Set.of("what is live")) ? "; look at what differs now and confirm it." : ".");
    }

    private static String exclusions(Approvals wanted) {
        return String.join(" or ", wanted.notBy().stream().map(who -> switch (who) {
            case AUTHORS -> "an author";
            case REQUESTER -> "the requester";
        }).toList());
    }

    /** The groups and persons who are asked at this moment. */
    public static List<String> asked(Approvals wanted, GateFacts facts, Instant now) {
        List<String> asked = new ArrayList<>(wanted.from());
        wanted.escalation().filter(more -> !now.isBefore(facts.requestedAt().plus(more.after())))
                .ifPresent(more -> asked.add(more.to()));
        return asked;
    }

    private static Set<String> members(GateFacts facts, Collection<String> groups) {
        Set<String> members = new TreeSet<>();
        groups.forEach(group -> members.addAll(facts.people().members().getOrDefault(group, Set.of())));
        return members;
    }

    /** Who has a voice: who may not decide has none, so that nobody can give it in their place. */
    private static Set<String> voices(Approvals wanted, GateFacts facts, Collection<String> groups) {
        Set<String> voices = members(facts, groups);
        voices.removeIf(person -> excluded(wanted, facts, person).isPresent());
        return voices;
    }

    private static Set<String> voices(Approvals wanted, GateFacts facts, Instant now) {
        return voices(wanted, facts, asked(wanted, facts, now));
    }

    private static Set<String> principals(GateFacts facts, String person) {
        return facts.people().standIns().getOrDefault(person, Set.of());
    }

    /** The voice with which somebody decides here: their own, or that of one they stand in for. */
    private static Optional<String> voice(Approvals wanted, GateFacts facts, Instant now, String person) {
        Set<String> voices = voices(wanted, facts, now);
        return voices.contains(person) ? Optional.of(person)
                : principals(facts, person).stream().filter(voices::contains).sorted().findFirst();
    }

    /** The newest decision of each person. */
    private static List<GateDecision> latest(GateFacts facts) {
        Map<String, GateDecision> newest = new LinkedHashMap<>();
        facts.said().decisions().stream().sorted(Comparator.comparing(GateDecision::at))
                .forEach(decision -> newest.put(decision.by(), decision));
        return List.copyOf(newest.values());
    }

    /** By voice, the approvals that count now: on this subject, by those who are asked now and are not excluded. */
    private static Map<String, GateDecision> counted(Approvals wanted, GateFacts facts, Instant now) {
        Map<String, GateDecision> counted = new LinkedHashMap<>();
        String digest = facts.subject().digest();
        latest(facts).stream().filter(decision -> decision.yes() && decision.digest().equals(digest))
                .filter(decision -> excluded(wanted, facts, decision.by()).isEmpty())
                .forEach(decision -> voice(wanted, facts, now, decision)
                        .ifPresent(voice -> counted.putIfAbsent(voice, decision)));
        return counted;
    }

    /** Whose voice a decision gave: as it was when it was made, as long as that one is still asked. */
    private static Optional<String> voice(Approvals wanted, GateFacts facts, Instant now, GateDecision decision) {
        return decision.inPlaceOf().isPresent() ? decision.inPlaceOf().filter(voices(wanted, facts, now)::contains)
                : voice(wanted, facts, now, decision.by());
    }

    /** In whose place somebody would decide here; empty where it is their own voice, or they have none. */
    public static Optional<String> inPlaceOf(Approvals wanted, GateFacts facts, Instant now, String person) {
        return voice(wanted, facts, now, person).filter(voice -> !voice.equals(person));
    }

    /**
     * Why a decision cannot be handed on to somebody: only to one who could be asked here, now or later, or who stands
     * in for such a one.
     */
    public static Optional<String> handOnRefusal(Approvals wanted, GateFacts facts, String to) {
        List<String> groups = new ArrayList<>(wanted.from());
        wanted.escalation().ifPresent(more -> groups.add(more.to()));
        return whyNot(wanted, facts, groups, to, ", which decides here, and stands in for nobody who is");
    }

    /** Why somebody has no voice among these, neither an own one nor one to give in another's place. */
    private static Optional<String> whyNot(Approvals wanted, GateFacts facts, List<String> groups, String person,
            String notThere) {
        Set<String> members = members(facts, groups);
        List<String> principals = principals(facts, person).stream().filter(members::contains).sorted().toList();
        if (!members.contains(person) && principals.isEmpty()) {
            return Optional.of(person + " is not in the group " + String.join(" or ", groups) + notThere);
        }
        Optional<String> own = excluded(wanted, facts, person);
        if (own.isPresent() || members.contains(person)) {
            return own;
        }
        List<Optional<String>> theirs = principals.stream().map(principal -> excluded(wanted, facts, principal))
                .toList();
        return theirs.stream().allMatch(Optional::isPresent)
                ? theirs.getFirst().map(why -> person + " stands in for " + principals.getFirst() + ": " + why
                        + ", nor may who stands in for them")
                : Optional.empty();
    }

    static Optional<String> rejection(GateFacts facts) {
        return latest(facts).stream().filter(decision -> !decision.yes()).findFirst()
                .map(decision -> "rejected by " + decision.by()
                        + decision.inPlaceOf().map(other -> " in place of " + other).orElse("") + ": \""
                        + decision.comment() + "\"");
    }

    private static Optional<String> excluded(Approvals wanted, GateFacts facts, String person) {
        if (wanted.notBy().contains(Exclusion.REQUESTER) && person.equals(facts.requester())) {
            return Optional.of(person + " requested this deployment, and the requester may not decide about it");
        }
        if (wanted.notBy().contains(Exclusion.AUTHORS) && facts.authors().contains(person)) {
            return Optional
                    .of(person + " wrote or pushed a commit of what is proposed, and authors may not decide about it");
        }
        return Optional.empty();
    }

    /** Why this person may not decide about this subject, if so. */
    public static Optional<String> refusal(Approvals wanted, GateFacts facts, Instant now, String person) {
        Optional<String> not = whyNot(wanted, facts, asked(wanted, facts, now), person, ", which decides here");
        if (not.isPresent()) {
            return not;
        }
        String voice = voice(wanted, facts, now, person).orElseThrow();
        return Optional.ofNullable(counted(wanted, facts, now).get(voice))
                .map(given -> given.by().equals(person) ? person + " has approved this already"
                        : given.by() + " has approved this already in place of " + voice);
    }
}
