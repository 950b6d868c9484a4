package dev.paseo.service.store;

import dev.paseo.language.file.Names;
import dev.paseo.service.arrival.Arrivals;
import dev.paseo.service.bytes.ByteStore;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.version.Versions;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;

/** A folder into which files are put, named by a pattern with {@code {version}}. */
final class FolderStore implements WatchedStore {

    private final Where where;
    private final RegistryStore.Using using;

    FolderStore(Where where, RegistryStore.Using using) {
        this.where = where;
        this.using = using;
    }

    private Path folder() {
        return Path.of(URI.create(where.address()));
    }

    private static Pattern pattern(String text) {
        int at = text.indexOf("{version}");
        return Pattern.compile(Pattern.quote(text.substring(0, at)) + "(" + Arrivals.NUMBER.pattern() + ")"
                + Pattern.quote(text.substring(at + "{version}".length())));
    }

    private record Found(Path file, String number, BasicFileAttributes attributes) {}

    private List<Found> found(boolean seenBefore) {
        Pattern pattern = pattern(where.pattern());
        List<Found> found = new ArrayList<>();
        try (Stream<Path> files = Files.list(folder())) {
            for (Path file : files.toList()) {
                Matcher matcher = pattern.matcher(file.getFileName().toString());
                if (matcher.matches() && Files.isRegularFile(file, LinkOption.NOFOLLOW_LINKS)) {
                    found.add(new Found(file, matcher.group(1),
                            Files.readAttributes(file, BasicFileAttributes.class, LinkOption.NOFOLLOW_LINKS)));
                }
            }
        } catch (IOException failed) {
            if (failed instanceof NoSuchFileException && !seenBefore) {
                return List.of();
            }
            throw Refusal.unavailable("The folder " + folder() + " cannot be listed: " + failed.getMessage());
        }
        found.sort(Comparator.comparing(each -> each.attributes().lastModifiedTime()));
        return found;
    }

    @Override
    public List<Sighting> list(boolean seenBefore) {
        return found(seenBefore).stream().map(each -> new Sighting(each.number(), digest(each))).toList();
    }

    private static String digest(Found found) {
        return found.attributes().size() + " bytes of " + found.attributes().lastModifiedTime();
    }

    @Override
    public List<Versions.Artifact> fetch(Sighting sighting) {
        Found found = found(true).stream().filter(each -> each.number().equals(sighting.number())).findFirst()
                .orElseThrow(() -> Refusal.unavailable("The file of " + sighting.number() + " was removed meanwhile"));
        try (InputStream in = Files.newInputStream(found.file(), LinkOption.NOFOLLOW_LINKS)) {
            ByteStore.StoredBytes kept = using.bytes().keep(in, Web.LARGEST, using.changes().now());
            if (found(true).stream()
                    .noneMatch(each -> each.file().equals(found.file()) && digest(each).equals(sighting.digest()))) {
                throw Refusal.unavailable(found.file() + " was being written while it was read");
            }
            String fileName = found.file().getFileName().toString();
            return List.of(new Versions.Artifact(Names.artifact(fileName, sighting.number()), fileName, kept.digest(),
                    kept.size()));
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
    }
}
