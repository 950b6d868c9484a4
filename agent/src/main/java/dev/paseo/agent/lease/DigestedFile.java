package dev.paseo.agent.lease;

import java.io.IOException;
import java.net.http.HttpResponse;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionStage;
import java.util.concurrent.Flow;

/** Writes a body into a file as it comes and gives its SHA-256, without another copy of it in between. */
final class DigestedFile implements HttpResponse.BodySubscriber<String> {

    private final CompletableFuture<String> done = new CompletableFuture<>();
    private final MessageDigest digest;
    private final Path file;
    private FileChannel channel;
    private Flow.Subscription subscription;

    DigestedFile(Path file) {
        this.file = file;
        try {
            this.digest = MessageDigest.getInstance("SHA-256");
        } catch (NoSuchAlgorithmException impossible) {
            throw new IllegalStateException("every Java platform has SHA-256", impossible);
        }
    }

    @Override
    public CompletionStage<String> getBody() {
        return done;
    }

    @Override
    public void onSubscribe(Flow.Subscription coming) {
        subscription = coming;
        try {
            Files.createDirectories(file.getParent());
            channel = FileChannel.open(file, StandardOpenOption.CREATE, StandardOpenOption.WRITE, StandardOpenOption.TRUNCATE_EXISTING);
            coming.request(Long.MAX_VALUE);
        } catch (IOException failed) {
            onError(failed);
        }
    }

    @Override
    public void onNext(List<ByteBuffer> buffers) {
        try {
            for (ByteBuffer buffer : buffers) {
                digest.update(buffer.duplicate());
                while (buffer.hasRemaining()) {
                    channel.write(buffer);
                }
            }
        } catch (IOException failed) {
            subscription.cancel();
            onError(failed);
        }
    }

    @Override
    public void onError(Throwable failed) {
        close();
        done.completeExceptionally(failed);
    }

    @Override
    public void onComplete() {
        close();
        done.complete(HexFormat.of().formatHex(digest.digest()));
    }

    private void close() {
        try {
            if (channel != null) {
                channel.close();
            }
        } catch (IOException failed) {
            done.completeExceptionally(failed);
        }
    }
}
