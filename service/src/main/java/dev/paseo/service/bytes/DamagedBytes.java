package dev.paseo.service.bytes;

import java.io.IOException;

/** The bytes kept under a digest have another one now. */
public final class DamagedBytes extends IOException {

    private final String wanted;
    private final String found;

    DamagedBytes(String wanted, String found) {
        super("the kept bytes " + wanted + " are damaged: their digest is " + found);
        this.wanted = wanted;
        this.found = found;
    }

    public String wanted() {
        return wanted;
    }

    public String found() {
        return found;
    }
}
