package dev.paseo.service.releaserecord;

import dev.paseo.service.releaserecord.ReleaseRecordMapper.OriginRow;
import dev.paseo.service.releaserecord.ReleaseRecords.RecordFileView;
import dev.paseo.service.releaserecord.ReleaseRecords.RecordVersionView;
import dev.paseo.service.version.Versions;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** What a record says of the version that was deployed: where it comes from, and its bytes. */
@Component
class RecordedVersions {

    private final ReleaseRecordMapper mapper;
    private final Versions versions;

    RecordedVersions(ReleaseRecordMapper mapper, Versions versions) {
        this.mapper = mapper;
        this.versions = versions;
    }

    RecordVersionView of(long id) {
        Versions.Version version = versions.byId(id);
        OriginRow origin = mapper.origin(version.id());
        return new RecordVersionView(Optional.ofNullable(origin.repository()), version.branch(), version.commit(),
                Optional.ofNullable(origin.summary()), version.runNumber(), version.sealedAt(), version.digest(),
                versions.artifacts(version.id()).stream()
                        .map(file -> new RecordFileView(file.name(), file.fileName(), file.digest(), file.size()))
                        .toList());
    }
}
