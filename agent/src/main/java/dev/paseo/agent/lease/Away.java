package dev.paseo.agent.lease;

import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;

/** The service is away, or cannot do it now: asking again later may help. Whatever else fails is this machine's own. */
public final class Away extends IOException {

    public Away(String message) {
        super(message);
    }

    Away(IOException cause) {
        super(String.valueOf(cause.getMessage() == null ? cause : cause.getMessage()), cause);
    }

    /** Bytes that come from the service: that they stop coming is told from what is done with them. */
    static InputStream from(InputStream remote) {
        return new FilterInputStream(remote) {
            @Override
            public int read() throws IOException {
                try {
                    return super.read();
                } catch (IOException broken) {
                    throw new Away(broken);
                }
            }

            @Override
            public int read(byte[] bytes, int offset, int length) throws IOException {
                try {
                    return super.read(bytes, offset, length);
                } catch (IOException broken) {
                    throw new Away(broken);
                }
            }
        };
    }
}
