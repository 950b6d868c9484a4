package dev.paseo.e2e;

import java.util.LinkedHashMap;
import java.util.Map;

/** The files of a small component, and the environments it walks through. */
final class Scenario {

    private Scenario() {}

    static final String PIPELINE = """
            paseo: 1
            component: daylight-api
            summary: Daylight at the huts, over HTTP
            versions: "1.4.{serial}"
            starts:
              - push: [main, "feature/*"]
            newer-start: runs-beside
            stages:
              compile:
                steps: [./build.sh]
                keep: {app: out/app.txt}
              unit-tests:
                steps: [./test.sh]
            deployment:
              bring: ["deploy/**"]
              on-each-host: [deploy/install.sh]
              secrets: [DATA_KEY]
              checks:
                each-host:
                  - {http: "{host.url}/version", contains: "version {version} ok", within: 2s}
              removal: [deploy/remove.sh]
            route:
              - test: automatic
              - staging: automatic
              - production: on-request
            """;

    /** The host's page is what the recipe installs; its health comes from the file {@code health} of the commit. */
    static Map<String, String> files() {
        Map<String, String> files = new LinkedHashMap<>();
        files.put("paseo.yaml", PIPELINE);
        files.put("health", "ok");
        files.put("build.sh",
                "#!/bin/sh\nset -e\nmkdir -p out\necho \"version $PASEO_VERSION $(cat health)\" > out/app.txt\necho "
                        + "built\n");
        files.put("test.sh", "#!/bin/sh\necho tested\n");
        files.put("deploy/install.sh",
                "#!/bin/sh\nset -e\necho \"key $DATA_KEY\"\ncp \"$PASEO_ARTIFACTS/app/app.txt\" "
                        + "\"$PASEO_HOST_FOLDER/version\"\n");
        files.put("deploy/remove.sh", "#!/bin/sh\nrm -f \"$PASEO_HOST_FOLDER/version\"\n");
        return files;
    }

    /** {@code address} gives each host's address. */
    static String environments(java.util.function.UnaryOperator<String> address) {
        return """
                environments:
                  test:
                    components:
                      daylight-api:
                        url: %1$s
                        hosts: {test-1: {url: "%1$s"}}
                        secrets: [DATA_KEY]
                  staging:
                    follows: test
                    components:
                      daylight-api:
                        hosts: {staging-1: {url: "%2$s"}, staging-2: {url: "%3$s"}}
                        secrets: [DATA_KEY]
                  production:
                    follows: staging
                    to-enter:
                      approvals: {from: approvers, count: 1, not-by: [authors, requester], comment: required, within: \
                48h}
                    components:
                      daylight-api:
                        url: %4$s
                        hosts: {north-hut: {url: "%4$s"}, ridge-hut: {url: "%5$s"}, valley-house: {url: "%6$s"}}
                        variables: {LOG_LEVEL: warn}
                        secrets: [DATA_KEY]
                """.formatted(address.apply("test-1"), address.apply("staging-1"), address.apply("staging-2"),
                address.apply("north-hut"), address.apply("ridge-hut"), address.apply("valley-house"));
    }
}
