package dev.paseo.service.settings;

import dev.paseo.core.text.Size;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Positive;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import org.springframework.boot.context.properties.ConfigurationProperties;
import org.springframework.boot.context.properties.bind.DefaultValue;
import org.springframework.validation.annotation.Validated;

/**
 * What the operator sets, under {@code paseo.}.
 *
 * @param data             the folder of bytes, mirrors and keys; all replicas share it
 * @param allowedSources   folders below which {@code file://} repositories may lie, and beginnings of {@code https://}
 *                         and {@code ssh://} addresses
 * @param allowedStores    beginnings of addresses of the stores that may be observed, and folders below which observed
 *                         ones may lie
 * @param allowedReceivers beginnings of addresses that events may be told to
 * @param allowedNetworks  networks, such as {@code 10.0.0.0/8}, in which names of allowed addresses may lie; none:
 *                         everywhere but on this machine, on its link, and where no single machine is
 * @param leaseSeconds     how long an agent's lease lasts without a heartbeat, in seconds
 * @param takeWithin       how long work for a host waits for the host's agent before it fails
 * @param watchEvery       how often agents look at what is live on their hosts
 * @param mostLogLines     how many lines the log of one stage or of one host's task may have: what an agent sends
 *                         beyond is refused
 * @param keptPerComponent how many bytes of artifacts, files between stages, reports, logs, folders to reuse and
 *                         uploads each component may have kept
 * @param requestsPerMinute how many requests one token or session may send a minute to each replica; a sixth of them at
 *                          once
 * @param proxies          addresses of proxies whose X-Forwarded-For and X-Forwarded-Proto are believed
 * @param address          where people reach the service; used in links
 * @param mailFrom         whom its mails are from; the mail server is set as {@code spring.mail.host} and so on, none:
 *                         no mails
 * @param clockMayMove     whether an administrator may move the service's clock forward: for demos and rehearsals
 */
@Validated
@ConfigurationProperties("paseo")
public record Settings(
        @NotNull Path data, @DefaultValue @NotNull List<String> allowedSources,
        @DefaultValue @NotNull List<String> allowedStores,
        @DefaultValue @NotNull List<String> allowedReceivers, @DefaultValue @NotNull List<String> allowedNetworks,
        @DefaultValue("60") int leaseSeconds,
        @DefaultValue("5m") Duration takeWithin, @DefaultValue("20s") Duration watchEvery,
        @DefaultValue("100000000") @Positive long mostLogLines, @DefaultValue("6000") @Positive int requestsPerMinute,
        @DefaultValue("500GB") @NotNull Size keptPerComponent, @DefaultValue @NotNull List<String> proxies,
        @DefaultValue("http://127.0.0.1:7600") @NotEmpty String address,
        @DefaultValue("paseo@localhost") @NotEmpty String mailFrom, @DefaultValue("false") boolean clockMayMove) {}
