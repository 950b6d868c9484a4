package dev.paseo.service.web;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.access.Accounts;
import dev.paseo.service.engine.Nudge;
import dev.paseo.service.engine.LiveEvents;
import dev.paseo.service.permission.Permission;
import io.swagger.v3.oas.annotations.Hidden;
import java.io.IOException;
import java.util.List;
import java.util.Optional;
import org.springframework.http.MediaType;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/**
 * Live changes as server-sent events. Their ids are the outbox's own sequence, so that a reader resumes by
 * Last-Event-ID.
 */
@Hidden
@RestController
class EventController {

    private static final long BEAT_MILLIS = 10_000;

    private final LiveEvents live;
    private final Nudge nudge;
    private final Accounts accounts;

    EventController(LiveEvents live, Nudge nudge, Accounts accounts) {
        this.live = live;
        this.nudge = nudge;
        this.accounts = accounts;
    }

    /** Live events as they happen (server-sent events); Last-Event-ID resumes where the connection broke. */
    @GetMapping(value = "/api/v1/events", produces = MediaType.TEXT_EVENT_STREAM_VALUE)
    SseEmitter events(@AuthenticationPrincipal Person person,
            @RequestHeader(name = "Last-Event-ID") Optional<Long> last) {
        Permission.require(person, Action.LOOK);
        SseEmitter emitter = new SseEmitter(0L);
        long position = live.position();
        List<LiveEvents.LiveEvent> missed = last.map(live::missed).orElse(List.of());
        Thread.ofVirtual().name("events-" + person.name()).start(() -> follow(person.id(), emitter, missed, position));
        return emitter;
    }

    private void follow(long account, SseEmitter emitter, List<LiveEvents.LiveEvent> missed, long start) {
        long position = start;
        try (Nudge.Listening listening = nudge.listen(Nudge.EVENTS)) {
            // The page hears at once that it is connected.
            emitter.send(SseEmitter.event().comment("connected"));
            send(emitter, missed);
            while (!nudge.isClosing()) {
                live.pull();
                List<LiveEvents.LiveEvent> fresh = live.since(position);
                position = live.position();
                if (fresh.stream().anyMatch(event -> event.kind().equals("account")) && !accounts.isActive(account)) {
                    emitter.send(SseEmitter.event().name("signed-out").data("This account was disabled."));
                    break;
                }
                send(emitter, fresh);
                if (!listening.await(BEAT_MILLIS)) {
                    emitter.send(SseEmitter.event().comment("still here"));
                }
            }
            emitter.complete();
        } catch (IOException | IllegalStateException gone) {
            emitter.complete();
        } catch (InterruptedException stop) {
            Thread.currentThread().interrupt();
            emitter.complete();
        } catch (RuntimeException failed) {
            emitter.completeWithError(failed);
        }
    }

    private static void send(SseEmitter emitter, List<LiveEvents.LiveEvent> events) throws IOException {
        for (LiveEvents.LiveEvent event : events) {
            emitter.send(SseEmitter.event().id(Long.toString(event.sequence())).name("changed").data(event,
                    MediaType.APPLICATION_JSON));
        }
    }
}
