package dev.paseo.service.evidence;

/** A report file that is not what it should be; the message says which, where and what. */
final class UnreadableReport extends RuntimeException {
    UnreadableReport(String message) {
        super(message);
    }
}
