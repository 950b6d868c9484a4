package dev.paseo.service.notice;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;
import static org.mockito.Mockito.doThrow;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.ArgumentMatchers.anyLong;

import dev.paseo.service.change.AtNoon;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import dev.paseo.service.settings.Settings;
import jakarta.mail.Session;
import jakarta.mail.internet.MimeMessage;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.mail.MailSendException;
import org.springframework.mail.javamail.JavaMailSender;

class MailsTest {

    private static final Instant NOW = Rows.NOON;

    private final RealDatabase database = RealDatabase.get();
    private final AtNoon noon = new AtNoon();
    private final NoticeMapper mapper = database.mapper(NoticeMapper.class);
    private final JavaMailSender server = mock(JavaMailSender.class);
    private final Settings settings = mock(Settings.class);
    private final MailLinks links = mock(MailLinks.class);
    private final Mails mails = new Mails(mapper, new ObjectProvider<>() {
        @Override
        public JavaMailSender getObject() {
            return server;
        }
    }, links, settings, noon.changes, mock(WhatChanges.class));
    private final long account = database.rows().account();

    @BeforeEach
    void reader() {
        when(settings.mailFrom()).thenReturn("paseo@park.test");
        when(links.address(anyLong(), anyString())).thenReturn("http://127.0.0.1/m/x");
        when(server.createMimeMessage()).thenAnswer(call -> new MimeMessage((Session) null));
        database.insert("insert into account_address (address, account_id, verified_at) values (?, ?, ?)",
                Rows.fresh("anna") + "@park.test", account, NOW);
    }

    private void noted(String title) {
        mapper.add(account, new Notices.Said("run failed", "daylight-api", title, "why", "/runs/1", title), NOW, NOW,
                null);
    }

    private Mails.Batch batch() {
        return new Mails.Batch(account, new ArrayList<>());
    }

    @Test
    void whatIsDueForOneGoesTogetherAndByOneReplica() throws Exception {
        noted("daylight-api#1 failed");
        noted("daylight-api#2 failed");
        List<Mails.Batch> batches = RealDatabase.atOnce(8, () -> {
            Mails.Batch batch = batch();
            return mails.claim(batch, NOW) ? batch : new Mails.Batch(account, List.of());
        });
        assertEquals(2, batches.stream().mapToInt(batch -> batch.taken().size()).sum());
        batches.forEach(mails::perform);
        assertFalse(mapper.due(NOW.plus(Duration.ofDays(1))).contains(account));
    }

    @Test
    void aServerThatIsAwayIsTriedAgainLater() {
        noted("daylight-api#1 failed");
        doThrow(new MailSendException("connection refused")).when(server).send(any(MimeMessage.class));
        Mails.Batch batch = batch();
        assertTrue(mails.claim(batch, NOW));
        mails.perform(batch);
        assertFalse(mails.claim(batch(), NOW.plusSeconds(29)));
        assertTrue(mails.claim(batch(), NOW.plusSeconds(31)));
    }

    @Test
    void whoHasNoAddressIsNotTriedAgain() {
        noted("daylight-api#1 failed");
        database.change("delete from account_address where account_id = ?", account);
        Mails.Batch batch = batch();
        mails.claim(batch, NOW);
        mails.perform(batch);
        assertFalse(mapper.due(NOW.plus(Duration.ofDays(1))).contains(account));
        verify(server, never()).send(any(MimeMessage.class));
    }
}
