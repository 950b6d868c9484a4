package dev.paseo.service.evidence;

import dev.paseo.core.text.Size;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;

/**
 * Refuses XML in which nothing opens for so long that a parser would have to hold it all: endless names, values or
 * texts.
 */
final class TagGuard extends FilterInputStream {

    static final int MOST_WITHOUT_TAG = 16_000_000;

    private long since;

    TagGuard(InputStream in) {
        super(in);
    }

    @Override
    public int read() throws IOException {
        byte[] one = new byte[1];
        return read(one, 0, 1) < 0 ? -1 : one[0] & 0xff;
    }

    @Override
    public int read(byte[] buffer, int offset, int length) throws IOException {
        int count = super.read(buffer, offset, length);
        for (int at = offset; at < offset + count; at++) {
            since = buffer[at] == '<' ? 0 : since + 1;
        }
        if (since > MOST_WITHOUT_TAG) {
            throw new UnreadableReport("more than " + Size.words(MOST_WITHOUT_TAG) + " without a tag");
        }
        return count;
    }
}
