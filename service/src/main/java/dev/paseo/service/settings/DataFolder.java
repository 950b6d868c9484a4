package dev.paseo.service.settings;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFileAttributeView;
import java.nio.file.attribute.PosixFilePermissions;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** The data folder is the service's own: nobody else on the machine looks into it, whatever the umask was. */
@Configuration
class DataFolder {

    /** Before anything is put there. */
    @Bean
    static Closed closed(Settings settings) throws IOException {
        Path folder = Files.createDirectories(settings.data());
        PosixFileAttributeView view = Files.getFileAttributeView(folder, PosixFileAttributeView.class);
        if (view != null) {
            view.setPermissions(PosixFilePermissions.fromString("rwx------"));
        }
        return new Closed(folder);
    }

    /** That it is. */
    record Closed(Path folder) {}
}
