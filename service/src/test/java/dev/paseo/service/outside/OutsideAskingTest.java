package dev.paseo.service.outside;

import dev.paseo.core.deployment.DeploymentStatus;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.verifyNoInteractions;
import static org.mockito.Mockito.when;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.ArgumentMatchers.anyLong;

import dev.paseo.service.change.AtNoon;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import dev.paseo.service.engine.Effects;
import dev.paseo.service.problem.Refusal.Kind;
import dev.paseo.service.problem.Refused;
import dev.paseo.service.secret.Secrets;
import dev.paseo.service.settings.Settings;
import dev.paseo.service.signature.SignedPost;
import java.io.IOException;
import java.time.Instant;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class OutsideAskingTest {

    private final RealDatabase database = RealDatabase.get();
    private final AtNoon noon = new AtNoon();
    private final OutsideMapper mapper = mock(OutsideMapper.class);
    private final Secrets secrets = mock(Secrets.class);
    private final SignedPost post = mock(SignedPost.class);
    private final OutsideAsking asking = new OutsideAsking(mapper, mock(Effects.class), secrets, mock(Settings.class),
            new OutsideAsking.Around(noon.changes, database.json(), post));

    private void asked(DeploymentStatus status, Instant answered) {
        when(mapper.byToken(anyString())).thenReturn(Optional.of(new OutsideMapper.AskedRow(1, 7, "change board",
                answered)));
        about(status);
    }

    private void about(DeploymentStatus status) {
        when(mapper.about(7)).thenReturn(new OutsideMapper.AboutRow("daylight-api", "production", 3, "1.4.2", status,
                null, 5));
    }

    @Test
    void anAnswerIsForAQuestionThatWaits() {
        when(mapper.byToken(anyString())).thenReturn(Optional.empty());
        Refused.by(Kind.NOT_FOUND, () -> asking.answer("x", true, ""));
        asked(DeploymentStatus.WAITING, Rows.NOON);
        assertEquals("This was answered already", Refused.by(Kind.CONFLICT, () -> asking.answer("x", true, "")));
        asked(DeploymentStatus.WITHDRAWN, null);
        assertEquals("Deployment 7 no longer waits: it is withdrawn",
                Refused.by(Kind.CONFLICT, () -> asking.answer("x", true, "")));
        verify(mapper, never()).answer(anyLong(), any(Boolean.class), anyString(), any());
    }

    private String failure() {
        return String.valueOf(assertThrows(RuntimeException.class, () -> asking
                .perform("{\"deployment\":7,\"name\":\"change board\",\"address\":\"http://127.0.0.1:1\"}"))
                .getMessage());
    }

    @Test
    void aQuestionThatCannotBeAskedIsAskedAgain() throws Exception {
        about(DeploymentStatus.WAITING);
        when(mapper.asked(anyLong(), anyString(), anyString(), anyString())).thenReturn(1);
        when(secrets.value(anyString(), anyLong())).thenReturn(Optional.empty());
        assertEquals("no secret is set to sign questions to change board with", failure());
        when(secrets.value(anyString(), anyLong())).thenReturn(Optional.of("key"));
        when(post.send(any())).thenReturn(503);
        assertEquals("http://127.0.0.1:1 answered with status 503", failure());
        when(post.send(any())).thenThrow(new IOException("connection refused"));
        assertEquals("http://127.0.0.1:1 does not answer: connection refused", failure());
    }

    @Test
    void nobodyIsAskedAboutWhatNoLongerWaits() {
        about(DeploymentStatus.WITHDRAWN);
        asking.perform("{\"deployment\":7,\"name\":\"change board\",\"address\":\"http://127.0.0.1:1\"}");
        verifyNoInteractions(post);
    }
}
