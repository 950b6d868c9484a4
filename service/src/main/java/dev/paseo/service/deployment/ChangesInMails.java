package dev.paseo.service.deployment;

import dev.paseo.service.comparison.Comparisons;
import dev.paseo.service.notice.WhatChanges;
import dev.paseo.service.place.Deployments;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** What a deployment changes, as mails say it: short, since the page says it whole. */
@Component
class ChangesInMails implements WhatChanges {

    private static final Pattern DEPLOYMENT = Pattern.compile("/deployments/([0-9]{1,18})");
    private static final int MOST = 3;

    private final Deployments deployments;
    private final DeploymentComparisons comparisons;

    ChangesInMails(Deployments deployments, DeploymentComparisons comparisons) {
        this.deployments = deployments;
        this.comparisons = comparisons;
    }

    @Override
    public List<String> at(String path) {
        Matcher deployment = DEPLOYMENT.matcher(path);
        return deployment.matches() ? deployments.find(Long.parseLong(deployment.group(1)))
                .map(row -> lines(comparisons.of(row))).orElse(List.of()) : List.of();
    }

    private static List<String> lines(Comparisons.ComparisonView comparison) {
        List<String> lines = new ArrayList<>();
        if (comparison.commitCount() > 0) {
            lines.add((comparison.commitCount() == 1 ? "1 commit: " : comparison.commitCount() + " commits: ")
                    + comparison.commits().stream().limit(MOST)
                            .map(commit -> commit.summary() + " (" + commit.author() + ")")
                            .collect(Collectors.joining("; "))
                    + (comparison.commitCount() > MOST ? "; …" : ""));
        }
        if (!comparison.lost().isEmpty()) {
            lines.add("It lacks " + comparison.lost().size() + " of the commits that are live: "
                    + comparison.lost().getFirst().summary() + (comparison.lost().size() > 1 ? "; …" : ""));
        }
        comparison.evidence().stream().filter(figure -> figure.better().isPresent())
                .forEach(figure -> lines.add(figure.name() + ": "
                        + shown(figure.live()) + " → " + shown(figure.proposed())
                        + (figure.better().get() ? "" : ", worse")));
        comparison.variables().stream().filter(each -> !each.live().equals(each.proposed())).forEach(each -> lines
                .add("Variable " + each.name() + ": " + shown(each.live()) + " → " + shown(each.proposed())));
        if (!comparison.recipe().isEmpty() || !comparison.files().isEmpty()) {
            lines.add("The way it is deployed changes as well.");
        }
        return lines;
    }

    private static String shown(Optional<String> value) {
        return value.orElse("nothing");
    }
}
