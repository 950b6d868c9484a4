package dev.paseo.service.audit;

import dev.paseo.core.audit.MerkleTree;
import dev.paseo.core.audit.TreeHead;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.database.Transactions;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/** Gives entries their positions in the tree and signs its head; one replica at a time, by a lock on a row. */
@Component
class Sequencer {

    private static final Logger LOG = LoggerFactory.getLogger(Sequencer.class);

    private final AuditMapper mapper;
    private final Transactions transactions;
    private final ServiceClock clock;
    private final SignedHeads key;
    private MerkleTree tree = new MerkleTree();

    Sequencer(AuditMapper mapper, Transactions transactions, ServiceClock clock, SignedHeads key) {
        this.mapper = mapper;
        this.transactions = transactions;
        this.clock = clock;
        this.key = key;
    }

    /** What was written last is numbered, and its head signed, before the service is gone. */
    @EventListener(ContextClosedEvent.class)
    void last() {
        sequence();
    }

    private record Signed(TreeHead head, String signature) {}

    @Scheduled(fixedDelay = 200)
    synchronized void sequence() {
        try {
            Optional<Signed> signed = transactions.in(this::number);
            if (signed.isPresent()) {
                key.append(signed.get().head(), signed.get().signature());
            }
        } catch (IOException | RuntimeException failed) {
            tree = new MerkleTree();
            LOG.warn("audit entries are not numbered for the moment: {}", failed.toString());
        }
    }

    private Optional<Signed> number() {
        if (mapper.sequencing().isEmpty()) {
            return Optional.empty();
        }
        List<AuditMapper.EntryRow> pending = mapper.pending();
        if (pending.isEmpty()) {
            return Optional.empty();
        }
        catchUp();
        for (AuditMapper.EntryRow entry : pending) {
            byte[] hash = MerkleTree.leafHash(entry.body().getBytes(StandardCharsets.UTF_8));
            mapper.number(tree.size(), entry.id(), HexFormat.of().formatHex(hash));
            mapper.unmark(entry.id());
            tree.add(hash);
        }
        TreeHead head = new TreeHead(tree.size(), HexFormat.of().formatHex(tree.root()), clock.now());
        String signature = key.sign(head);
        mapper.sign(head.size(), head.root(), head.at().toString(), signature);
        return Optional.of(new Signed(head, signature));
    }

    /** Another replica may have numbered since, or our own last transaction may have failed. */
    private void catchUp() {
        if (tree.size() > mapper.leafCount()) {
            tree = new MerkleTree();
        }
        List<String> more = mapper.leafHashes(tree.size());
        while (!more.isEmpty()) {
            more.forEach(hash -> tree.add(HexFormat.of().parseHex(hash)));
            more = mapper.leafHashes(tree.size());
        }
    }
}
