package dev.paseo.service.arrival;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.access.PersonalTokens;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.component.Components;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.problem.Refusal;
import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.util.List;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Versions that were built elsewhere, sent by people and their machines. */
@RestController
@RequestMapping("/api/v1")
class UploadController {

    /** What is going to be sent; {@code authors}: mail addresses of those who wrote it, beside the uploader. */
    record UploadRequest(String number, List<Uploads.Announced> files, Optional<List<String>> authors) {}

    /** @param received how many bytes are here; a piece is sent from there on */
    record UploadFileView(String kind, String name, long size, long received) {}

    /**
     * An upload.
     *
     * @param id      empty where exactly this version is here already and nothing needs to be sent
     * @param version whether the version is sealed
     */
    record UploadView(Optional<Long> id, String component, String number, boolean version,
            List<UploadFileView> files) {}

    /** @param fresh whether it was not here before */
    record PublishedView(String component, String number, boolean fresh) {}

    record TokenDescription(String description) {}

    record PublishTokenView(String token) {}

    private final Components components;
    private final Uploads uploads;
    private final UploadPieces pieces;
    private final UploadSeals seals;
    private final PersonalTokens tokens;

    UploadController(Components components, Uploads uploads, UploadPieces pieces, UploadSeals seals,
            PersonalTokens tokens) {
        this.components = components;
        this.uploads = uploads;
        this.pieces = pieces;
        this.seals = seals;
        this.tokens = tokens;
    }

    /**
     * Makes a token that can publish versions of this component and nothing else, for 90 days. It is shown this once.
     */
    @PostMapping("/components/{name}/tokens")
    @ResponseStatus(HttpStatus.CREATED)
    PublishTokenView token(@AuthenticationPrincipal Person person, @PathVariable String name,
            @RequestBody TokenDescription request) {
        Permission.require(person, Action.PUBLISH, Optional.of(name), Optional.empty());
        Permission.unlimited(person, "make tokens");
        return new PublishTokenView(tokens.make(person.id(), person.name(),
                PersonalTokens.Wanted.toPublish(components.named(name).name(), request.description())));
    }

    /** Announces an upload, or finds the one of the same content to continue. */
    @PostMapping("/components/{name}/uploads")
    @ResponseStatus(HttpStatus.CREATED)
    UploadView begin(@AuthenticationPrincipal Person person, @PathVariable String name,
            @RequestBody UploadRequest request) {
        Permission.require(person, Action.PUBLISH, Optional.of(name), Optional.empty());
        RegisteredComponent component = components.named(name);
        Optional<Long> id = uploads.begin(component, request.number(),
                new Uploads.Statement(request.files(), request.authors().orElse(List.of())), person);
        return id.map(this::view)
                .orElseGet(() -> new UploadView(Optional.empty(), name, request.number(), true, List.of()));
    }

    private UploadMapper.UploadRow own(Person person, long id) {
        UploadMapper.UploadRow upload = uploads.upload(id);
        Permission.require(person, Action.PUBLISH, Optional.of(upload.component()), Optional.empty());
        if (upload.accountId() != person.id()) {
            throw Refusal.notAllowed("Upload " + id + " was begun by somebody else");
        }
        return upload;
    }

    private UploadView view(long id) {
        UploadMapper.UploadRow upload = uploads.upload(id);
        return new UploadView(Optional.of(id), upload.component(), upload.number(), upload.status().equals("sealed"),
                uploads.files(id).stream()
                        .map(file -> new UploadFileView(file.kind(), file.name(), file.size(),
                                pieces.received(id, file)))
                        .toList());
    }

    /** An upload that is under way: which files have arrived. */
    @GetMapping("/uploads/{id}")
    UploadView one(@AuthenticationPrincipal Person person, @PathVariable long id) {
        own(person, id);
        return view(id);
    }

    /**
     * Sends bytes of a file from where the last piece ended, said by {@code Upload-Offset}; what arrived before a
     * connection broke counts.
     */
    @PutMapping(value = "/uploads/{id}/files/{kind}/{name}", consumes = "application/octet-stream")
    UploadFileView send(@AuthenticationPrincipal Person person, @PathVariable long id, @PathVariable String kind,
            @PathVariable String name,
            @RequestHeader("Upload-Offset") long offset, HttpServletRequest request) throws IOException {
        UploadMapper.UploadRow upload = own(person, id);
        long received = pieces.send(upload, kind, name, offset, request.getInputStream());
        return uploads.files(id).stream().filter(file -> file.kind().equals(kind) && file.name().equals(name))
                .map(file -> new UploadFileView(kind, name, file.size(), received)).findFirst().orElseThrow();
    }

    /** Seals the version of an upload whose files have all arrived. Sent twice, it is sealed once. */
    @PostMapping("/uploads/{id}/seal")
    PublishedView seal(@AuthenticationPrincipal Person person, @PathVariable long id) {
        UploadMapper.UploadRow upload = own(person, id);
        Arrivals.Result result = seals.seal(upload, components.named(upload.component()), person);
        return new PublishedView(upload.component(), upload.number(), result.fresh());
    }
}
