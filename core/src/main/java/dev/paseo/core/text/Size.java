package dev.paseo.core.text;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * How many bytes, as people write and read it: kB, MB, GB in powers of ten (IEC 80000-13).
 *
 * @param bytes 0 or more
 */
public record Size(long bytes) {

    private static final List<String> UNITS = List.of("bytes", "kB", "MB", "GB", "TB", "PB");
    private static final BigDecimal STEP = BigDecimal.valueOf(1000);

    private static final Pattern WRITTEN = Pattern.compile("(\\d{1,15}) ?(bytes|kB|MB|GB|TB|PB)");

    /**
     * As settings have it, such as {@code 500GB}.
     *
     * @throws IllegalArgumentException for anything else; it says what is allowed
     */
    public static Size of(String text) {
        Matcher written = WRITTEN.matcher(text);
        if (!written.matches()) {
            throw wrong(text);
        }
        BigDecimal bytes = new BigDecimal(written.group(1)).multiply(STEP.pow(UNITS.indexOf(written.group(2))));
        if (bytes.compareTo(BigDecimal.valueOf(Long.MAX_VALUE)) > 0) {
            throw wrong(text);
        }
        return new Size(bytes.longValueExact());
    }

    private static IllegalArgumentException wrong(String text) {
        return new IllegalArgumentException(
                "should be a size such as 500GB, in bytes, kB, MB, GB, TB or PB; got “" + text + "”");
    }

    /** With at most one decimal. */
    public static String words(long bytes) {
        if (bytes == 1) {
            return "1 byte";
        }
        BigDecimal size = BigDecimal.valueOf(bytes);
        int unit = 0;
        while (unit < UNITS.size() - 1 && rounded(size).compareTo(STEP) >= 0) {
            size = size.divide(STEP);
            unit++;
        }
        return rounded(size).stripTrailingZeros().toPlainString() + " " + UNITS.get(unit);
    }

    private static BigDecimal rounded(BigDecimal size) {
        return size.setScale(1, RoundingMode.HALF_UP);
    }
}
