package dev.paseo.service.agent;

import dev.paseo.api.agent.Assignment;
import dev.paseo.api.agent.Lease;
import dev.paseo.api.agent.StepReport;
import dev.paseo.core.text.Size;
import dev.paseo.service.bytes.ByteStore;
import dev.paseo.service.log.Logs;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.settings.Settings;
import io.swagger.v3.oas.annotations.Hidden;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** What an agent asks with the token of a lease; it reaches that lease's work and nothing else. */
@Hidden
@RestController
@RequestMapping("/agent/v1/lease")
class LeaseController {

    private final WorkBoard board;
    private final Owners owners;
    private final Logs logs;
    private final LeaseBytes bytes;
    private final StepLog steps;
    private final Settings settings;

    LeaseController(WorkBoard board, Owners owners, Logs logs, LeaseBytes bytes, StepLog steps, Settings settings) {
        this.board = board;
        this.owners = owners;
        this.logs = logs;
        this.bytes = bytes;
        this.steps = steps;
        this.settings = settings;
    }

    static String token(String authorization) {
        return authorization.replaceFirst("^Bearer ", "");
    }

    /** The same assignment again, for an agent that was restarted. */
    @GetMapping
    Assignment again(@RequestHeader("Authorization") String authorization) {
        Work work = board.held(token(authorization));
        return Leases.complete(owners.of(work).assignment(work), work, token(authorization),
                settings.leaseSeconds());
    }

    /** Renews the lease of a piece of work, and says whether it is to stop. */
    @PostMapping("/heartbeat")
    Lease.HeartbeatAnswer heartbeat(@RequestHeader("Authorization") String authorization,
            @RequestBody Lease.Heartbeat heartbeat) {
        return board.heartbeat(board.held(token(authorization)), heartbeat.fence()).map(Lease.HeartbeatAnswer::new)
                .orElseThrow(() -> Refusal.gone("This lease has ended"));
    }

    /** Reports how one try of a step is. */
    @PutMapping("/steps")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void step(@RequestHeader("Authorization") String authorization, @RequestBody StepReport report) {
        steps.report(board.held(token(authorization)), report);
    }

    /** The number of the next line of the log that the service has not got yet. */
    @GetMapping("/log")
    Lease.LogPosition logPosition(@RequestHeader("Authorization") String authorization) {
        return new Lease.LogPosition(logs.nextLine(board.held(token(authorization)).id()));
    }

    /** Takes a block of lines, compressed with gzip; answers only when it is durable. */
    @PostMapping("/log")
    Lease.LogPosition log(@RequestHeader("Authorization") String authorization, @RequestParam long first,
            HttpServletRequest request) throws IOException {
        Work work = board.held(token(authorization));
        byte[] block = request.getInputStream().readNBytes(Logs.LARGEST_BLOCK + 1);
        if (block.length > Logs.LARGEST_BLOCK) {
            throw Refusal.tooLarge("A block of a log has at most " + Size.words(Logs.LARGEST_BLOCK));
        }
        return new Lease.LogPosition(logs.append(work.id(), first, block));
    }

    /** The commit's files, as a tar archive. */
    @GetMapping("/source")
    void source(@RequestHeader("Authorization") String authorization, HttpServletResponse response) throws IOException {
        Work work = board.held(token(authorization));
        response.setContentType("application/x-tar");
        files(work).source(work, response.getOutputStream());
    }

    /** Bytes that this piece of work may have, by their digest. */
    @GetMapping("/bytes/{digest}")
    void bytes(@RequestHeader("Authorization") String authorization, @PathVariable String digest,
            HttpServletRequest request, HttpServletResponse response) throws IOException {
        Work work = board.held(token(authorization));
        if (!owners.of(work).reaches(work, digest)) {
            throw Refusal.notFound("The work of this lease does not use the bytes " + digest);
        }
        response.setContentType(MediaType.APPLICATION_OCTET_STREAM_VALUE);
        Optional<Path> file = bytes.file(digest);
        if (file.isPresent() && Boolean.TRUE.equals(request.getAttribute("org.apache.tomcat.sendfile.support"))) {
            sendFile(file.get(), request, response);
            return;
        }
        try (InputStream in = bytes.open(digest)) {
            in.transferTo(response.getOutputStream());
        }
    }

    /** The operating system sends it, without a way through this process. */
    private static void sendFile(Path file, HttpServletRequest request, HttpServletResponse response)
            throws IOException {
        long size = Files.size(file);
        response.setContentLengthLong(size);
        request.setAttribute("org.apache.tomcat.sendfile.filename", file.toAbsolutePath().toString());
        request.setAttribute("org.apache.tomcat.sendfile.start", 0L);
        request.setAttribute("org.apache.tomcat.sendfile.end", size);
    }

    private WorkOwner.StageFiles files(Work work) {
        return owners.of(work).files();
    }

    /** Takes a file that becomes an artifact; answers with the digest of what arrived. */
    @PutMapping("/outputs/{name}")
    ByteStore.StoredBytes output(@RequestHeader("Authorization") String authorization, @PathVariable String name,
            @RequestParam String fileName, HttpServletRequest request) throws IOException {
        return bytes.take(token(authorization), request,
                (work, kept) -> files(work).output(work, name, fileName, kept));
    }

    /** Takes the archive of the files that the stages after this one find in their workspaces. */
    @PutMapping("/files")
    ByteStore.StoredBytes files(@RequestHeader("Authorization") String authorization, HttpServletRequest request)
            throws IOException {
        return bytes.take(token(authorization), request, (work, kept) -> files(work).files(work, kept));
    }

    /** Takes an archive of report files of one kind: tests, coverage, findings or parts. */
    @PutMapping("/reports/{kind}")
    ByteStore.StoredBytes report(@RequestHeader("Authorization") String authorization, @PathVariable String kind,
            HttpServletRequest request) throws IOException {
        return bytes.take(token(authorization), request, (work, kept) -> files(work).report(work, kind, kept));
    }

    /**
     * The archive of folders kept under this key, or the newest under another: X-Paseo-Exact says which, X-Paseo-Run
     * from where. 204: none.
     */
    @GetMapping("/reuse/{key}")
    void reused(@RequestHeader("Authorization") String authorization, @PathVariable String key,
            HttpServletResponse response) throws IOException {
        Work work = board.held(token(authorization));
        Optional<WorkOwner.Reused> found = files(work).reused(work, key);
        if (found.isEmpty()) {
            response.setStatus(HttpStatus.NO_CONTENT.value());
            return;
        }
        response.setContentType(MediaType.APPLICATION_OCTET_STREAM_VALUE);
        response.setHeader("X-Paseo-Digest", found.get().digest());
        response.setHeader("X-Paseo-Exact", Boolean.toString(found.get().exact()));
        response.setHeader("X-Paseo-Run", found.get().run());
        try (InputStream in = bytes.open(found.get().digest())) {
            in.transferTo(response.getOutputStream());
        }
    }

    /** Keeps an archive of folders under this key. */
    @PutMapping("/reuse/{key}")
    ByteStore.StoredBytes reuse(@RequestHeader("Authorization") String authorization, @PathVariable String key,
            HttpServletRequest request) throws IOException {
        return bytes.take(token(authorization), request, (work, kept) -> files(work).reuse(work, key, kept));
    }

    /** Reports the result of the work, and ends the lease. */
    @PostMapping("/result")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void result(@RequestHeader("Authorization") String authorization, @RequestBody Lease.Result result) {
        if (!board.end(token(authorization), result, owners)) {
            throw Refusal.gone("This lease has ended; its result is not accepted");
        }
    }
}
