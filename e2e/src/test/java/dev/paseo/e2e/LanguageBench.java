package dev.paseo.e2e;

import static dev.paseo.e2e.Figures.number;
import static dev.paseo.e2e.Figures.percentile;

import dev.paseo.language.file.PipelineFileReader;
import java.util.ArrayList;
import java.util.List;
import org.snakeyaml.engine.v2.api.LoadSettings;
import org.snakeyaml.engine.v2.api.lowlevel.Compose;

/** How long a large pipeline file takes to be checked. */
final class LanguageBench {

    private static final int STAGES = 2000;

    private LanguageBench() {}

    static void measure(Figures figures) {
        StringBuilder text = new StringBuilder(
                "paseo: 1\ncomponent: daylight-api\nversions: \"1.{serial}\"\nstages:\n");
        for (int stage = 0; stage < STAGES; stage++) {
            text.append("  stage-").append(stage).append(":\n    after: [")
                    .append(stage == 0 ? "" : "stage-" + (stage - 1) / 2)
                    .append("]\n    steps: [./build.sh]\n    keep: {artifact-")
                    .append(stage).append(": out/x}\n")
                    .append(stage % 10 == 0 ? "    wanted-if: \"branch == 'main'\"\n" : "");
        }
        String file = text.toString();
        LoadSettings settings = LoadSettings.builder().setUseMarks(true).build();
        double parse = time(() -> new Compose(settings).composeString(file).orElseThrow());
        double check = time(() -> PipelineFileReader.read(file).value().orElseThrow());
        figures.row("pipeline file: check 2,000 stages",
                number("%.0f ms, %.1f × the parsing alone (%.0f ms)", check, check / parse, parse), "< 200 ms",
                new Figures.Limit(check, 200, false, ""),
                "parsing the same YAML; medians of 15, warm; 200 of the stages have a condition");
    }

    private static double time(Runnable work) {
        List<Double> times = new ArrayList<>();
        for (int at = 0; at < 25; at++) {
            long began = System.nanoTime();
            work.run();
            if (at >= 10) {
                times.add((System.nanoTime() - began) / 1e6);
            }
        }
        return percentile(times, 0.5);
    }
}
