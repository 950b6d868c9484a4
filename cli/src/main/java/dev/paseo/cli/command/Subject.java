package dev.paseo.cli.command;

import dev.paseo.cli.service.Api;
import dev.paseo.cli.service.Failure;
import java.util.List;

/**
 * What a command is about: {@code daylight-api#41}, {@code deployment 1042}, {@code passage 311}, or {@code
 * daylight-api 1.4.41}.
 */
sealed interface Subject {

    record Run(String component, String number) implements Subject {}

    record Deployment(String id) implements Subject {}

    record Version(String component, String number) implements Subject {}

    record Passage(String id) implements Subject {}

    String FORMS = "COMPONENT#RUN, deployment NUMBER, passage NUMBER, or COMPONENT VERSION";

    static Subject of(List<String> words) {
        String first = words.getFirst();
        if (words.size() == 1 && first.matches("[a-z0-9-]+#[0-9]+")) {
            return new Run(first.substring(0, first.indexOf('#')), first.substring(first.indexOf('#') + 1));
        }
        if (words.size() == 2 && first.equals("deployment") && words.get(1).matches("[0-9]+")) {
            return new Deployment(words.get(1));
        }
        // A number alone can only be meant as a deployment's.
        if (words.size() == 1 && first.matches("[0-9]+")) {
            return new Deployment(first);
        }
        if (words.size() == 2 && first.equals("passage") && words.get(1).matches("[0-9]+")) {
            return new Passage(words.get(1));
        }
        if (words.size() == 2 && !first.equals("deployment") && !first.equals("passage")) {
            return new Version(first, words.get(1));
        }
        throw new Failure(Failure.Kind.USAGE, "“" + String.join(" ", words) + "” should be one of " + FORMS);
    }

    static Deployment deployment(List<String> words) {
        if (of(words) instanceof Deployment deployment) {
            return deployment;
        }
        throw new Failure(Failure.Kind.USAGE,
                "“" + String.join(" ", words) + "” should be deployment NUMBER, such as deployment 7");
    }

    /** Where a deployment or a passage is found. */
    static String pathOfGate(List<String> words) {
        return switch (of(words)) {
            case Deployment(String id) -> Api.path("deployments", id);
            case Passage(String id) -> Api.path("passages", id);
            default -> throw new Failure(Failure.Kind.USAGE, "“" + String.join(" ", words)
                    + "” should be deployment NUMBER or passage NUMBER, such as passage 3");
        };
    }
}
