package dev.paseo.agent.work;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarArchiveOutputStream;
import org.apache.commons.compress.archivers.tar.TarConstants;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class FilesTest {

    @TempDir
    Path folder;

    private static byte[] archive(String name, String linkTo) throws IOException {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (TarArchiveOutputStream tar = new TarArchiveOutputStream(bytes)) {
            byte[] text = "text".getBytes(StandardCharsets.UTF_8);
            TarArchiveEntry entry = linkTo == null ? new TarArchiveEntry(name, true)
                    : new TarArchiveEntry(name, TarConstants.LF_SYMLINK);
            if (linkTo == null) {
                entry.setSize(text.length);
            } else {
                entry.setLinkName(linkTo);
            }
            tar.putArchiveEntry(entry);
            if (linkTo == null) {
                tar.write(text);
            }
            tar.closeArchiveEntry();
        }
        return bytes.toByteArray();
    }

    @ParameterizedTest
    @CsvSource({"../outside,", "a/../../outside,"})
    void anArchiveThatClimbsOutIsRefused(String name, String linkTo) throws IOException {
        Path inside = Files.createDirectories(folder.resolve("inside"));
        byte[] bytes = archive(name, linkTo);
        assertThrows(CannotGoOn.class, () -> Archives.unpack(new ByteArrayInputStream(bytes), inside));
        assertTrue(Files.notExists(folder.resolve("outside")));
    }

    /**
     * A repository may have links that lead anywhere; they are made as they are, and nothing is written through them.
     */
    @ParameterizedTest
    @CsvSource({"../../outside", "/etc", "../outside"})
    void aLinkIsMadeAsItStandsAndNeverWrittenThrough(String to) throws IOException {
        Path inside = Files.createDirectories(folder.resolve("inside")).toRealPath();
        Path outside = Files.createDirectories(folder.resolve("outside"));
        Archives.unpack(new ByteArrayInputStream(archive("link", to)), inside);
        assertEquals(Path.of(to), Files.readSymbolicLink(inside.resolve("link")));
        for (String name : List.of("link/file", "link/deep/file", "other/../link/file")) {
            CannotGoOn refused = assertThrows(CannotGoOn.class,
                    () -> Archives.unpack(new ByteArrayInputStream(archive(name, null)), inside));
            assertTrue(refused.getMessage().contains("leads through the link link"), refused.getMessage());
        }
        Archives.unpack(new ByteArrayInputStream(archive("link", null)), inside);
        assertEquals("text", Files.readString(inside.resolve("link")), "a file in a link's place takes its place");
        try (var left = Files.list(outside)) {
            assertEquals(0, left.count());
        }
    }

    @Test
    void aGoodArchiveIsUnpacked() throws IOException {
        Archives.unpack(new ByteArrayInputStream(archive("a/b.txt", null)), folder);
        assertEquals("text", Files.readString(folder.resolve("a/b.txt")));
    }

    @Test
    void aPatternFindsItsOneFile() throws IOException {
        Path file = Files.createDirectories(folder.resolve("out")).resolve("daylight-api.jar");
        Files.writeString(file, "jar");
        assertEquals(file.toRealPath(), KeptFile.find(folder, "app", "out/*.jar"));
        assertEquals(file.toRealPath(), KeptFile.find(folder, "app", "out/daylight-api.jar"));
    }

    @ParameterizedTest
    @CsvSource({
            "out/*.war, matches no file of the workspace", "../*.jar, leads out of the workspace",
            "/etc/passwd, leads out of the workspace",
            "out/*, matches more than one file", "out/link, is a link that leads out of the workspace"})
    void aPatternThatDoesNotIsToldWhy(String pattern, String reason) throws IOException {
        Path out = Files.createDirectories(folder.resolve("out"));
        Files.writeString(out.resolve("a"), "a");
        Files.writeString(out.resolve("b"), "b");
        Files.createSymbolicLink(out.resolve("link"), Path.of("/etc/hostname"));
        KeptFile.NotOne refused = assertThrows(KeptFile.NotOne.class, () -> KeptFile.find(folder, "app", pattern));
        assertTrue(refused.getMessage().contains(reason), refused.getMessage());
    }

    @Test
    void patternsFindFilesInOrderAndTwoStarsStandForNoFolderToo() throws IOException {
        Files.createDirectories(folder.resolve("a/b"));
        for (String name : List.of("pom.xml", "a/pom.xml", "a/b/pom.xml", "a/other")) {
            Files.writeString(folder.resolve(name), name);
        }
        assertEquals(List.of(Path.of("a/b/pom.xml"), Path.of("a/pom.xml"), Path.of("pom.xml")),
                Globs.find(folder, List.of("**/pom.xml")));
        assertEquals(List.of(Path.of("a/b/pom.xml"), Path.of("a/pom.xml")),
                Globs.find(folder, List.of("a/**/pom.xml")));
        assertEquals(List.of(Path.of("a/other")), Globs.find(folder, List.of("a/*er")));
    }

    @Test
    void whatIsPackedIsUnpackedAsItWasAndALinkThatLeadsOutIsRefused() throws IOException {
        Path from = Files.createDirectories(folder.resolve("from/bin"));
        Files.writeString(from.resolve("run"), "#!/bin/sh");
        Files.setPosixFilePermissions(from.resolve("run"),
                java.nio.file.attribute.PosixFilePermissions.fromString("rwxr-xr-x"));
        Files.createSymbolicLink(from.resolve("link"), Path.of("run"));
        Path root = folder.resolve("from");
        Path archive = folder.resolve("a.tar");
        String digest = Archives.pack(root, Globs.find(root, List.of("bin/**")), archive);
        assertEquals(Digests.of(archive), digest);
        Path to = Files.createDirectories(folder.resolve("to"));
        Archives.unpack(Files.newInputStream(archive), to);
        assertEquals("#!/bin/sh", Files.readString(to.resolve("bin/link")));
        assertTrue(Files.isExecutable(to.resolve("bin/run")));
        Files.createSymbolicLink(from.resolve("out"), Path.of("../../../etc"));
        assertThrows(CannotGoOn.class, () -> Archives.pack(root, List.of(Path.of("bin/out")), archive));
    }
}
