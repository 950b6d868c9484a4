package dev.paseo.core.gate;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** Facts of a gate, to be changed one by one. */
final class Facts {

    static final Instant ASKED = Instant.parse("2026-11-23T09:00:00Z");

    final List<GateDecision> decisions = new ArrayList<>();
    final List<Tick> ticks = new ArrayList<>();
    final Map<String, GateFacts.Answer> answers = new HashMap<>();
    final Map<String, GateFacts.Held> conditions = new HashMap<>();
    final Map<String, Set<String>> standIns = new HashMap<>();
    final Map<String, Set<String>> members = new HashMap<>(Map.of("approvers",
            Set.of("approver-1", "approver-2", "developer", "release-engineer"), "testers", Set.of("tester")));
    Set<String> unknown = Set.of();
    String requester = "release-engineer";
    Subject subject = GateTest.SUBJECT;
    GateFacts.Around around = GateFacts.Around.PLAIN;
    boolean uploaded;
    GateFacts.Stretch stretch = GateFacts.Stretch.NOT_AT_ALL;

    GateFacts facts() {
        return new GateFacts(subject, requester, Set.of("developer"), unknown, new GateFacts.People(members, standIns),
                new GateFacts.OfVersion(Set.of("test", "staging"), "main", true, List.of("v1.4"), uploaded, stretch,
                        conditions),
                ASKED,
                new GateFacts.Said(decisions, ticks, answers), around);
    }

    void tick(String item, Tick.Outcome outcome) {
        ticks.add(new Tick(item, "tester", outcome, "note", ASKED.plus(Duration.ofSeconds(ticks.size()))));
    }
}
