package dev.paseo.core.gate;

import java.util.List;

/**
 * A gate with all that it is judged on, loaded once.
 *
 * @param environment its name
 * @param follows     it is passed with the first member of its set, and asks nothing by itself
 * @param asked       what its rules ask; of a set as {@link Gate#ofSet} puts them together
 * @param members     the other members of the set that stands there
 */
public record GateInput(String environment, boolean follows, List<Criterion> asked, GateFacts facts,
        List<Member> members) {

    public GateInput {
        asked = List.copyOf(asked);
        members = List.copyOf(members);
    }

    /**
     * Another member of the set.
     *
     * @param asked what its own gate asks of it; what it asks of people counts with the first
     */
    public record Member(String component, String number, boolean blocked, List<Criterion> asked, GateFacts facts) {
        public Member {
            asked = List.copyOf(asked);
        }
    }
}
