package dev.paseo.service.store;

import dev.paseo.service.problem.Refusal;
import dev.paseo.service.settings.Settings;
import dev.paseo.service.store.WatchedStore.Where;
import java.io.IOException;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import java.util.regex.Pattern;
import org.springframework.stereotype.Component;

/** Which stores may be observed, and how they are named. */
@Component
class StoreAddresses {

    private static final Pattern NAME = Pattern.compile("[a-z0-9]+(?:[._/-]+[a-z0-9]+)*");
    private static final Pattern COORDINATE = Pattern.compile("[A-Za-z0-9_-]+(\\.[A-Za-z0-9_-]+)*");

    private final Web web;
    private final Settings settings;

    StoreAddresses(Web web, Settings settings) {
        this.web = web;
        this.settings = settings;
    }

    /** @throws Refusal invalid where it is not named as its kind is; not allowed where no operator allows it */
    void check(Where where) {
        switch (where.kind()) {
            case REGISTRY -> {
                web.allow(where.address());
                require(where.name(), NAME, "/name", "the repository's name, such as park/hut-planner");
            }
            case MAVEN -> {
                web.allow(where.address());
                require(where.name(), COORDINATE, "/name", "the artifact's id");
                require(where.group(), COORDINATE, "/group", "the group's id");
                where.extension()
                        .ifPresent(extension -> require(where.extension(), COORDINATE, "/extension", "such as jar"));
            }
            case FOLDER -> {
                allowFolder(where.address());
                if (where.pattern().split("\\{version}", -1).length != 2 || where.pattern().contains("/")) {
                    throw Refusal.invalid("/pattern",
                            "A folder's files are named by a pattern with {version} in it once, such as "
                                    + "hut-planner-{version}.tgz");
                }
            }
        }
        if (where.pattern().isBlank() || where.pattern().length() > 200) {
            throw Refusal.invalid("/pattern", "has 1 to 200 characters");
        }
    }

    private static void require(Optional<String> text, Pattern pattern, String pointer, String what) {
        if (text.filter(words -> words.length() <= 200 && pattern.matcher(words).matches()).isEmpty()) {
            throw Refusal.invalid(pointer, "should be " + what + "; got “" + text.orElse("nothing") + "”");
        }
    }

    private void allowFolder(String address) {
        try {
            if (address.startsWith("file:///")) {
                Path real = Path.of(URI.create(address)).toRealPath();
                for (String allowed : settings.allowedStores()) {
                    if (!allowed.contains("://") && Files.isDirectory(Path.of(allowed))
                            && real.startsWith(Path.of(allowed).toRealPath())) {
                        return;
                    }
                }
            }
        } catch (IOException | IllegalArgumentException missing) {
            throw Refusal.invalid("/address", "There is no folder " + address);
        }
        throw Refusal.notAllowed(
                address + " is not a folder that may be observed; an operator sets the folders in "
                        + "paseo.allowed-stores");
    }
}
