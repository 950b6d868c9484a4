package dev.paseo.e2e;

/** An empty program: what the client's start is measured against. */
final class Empty {

    private Empty() {}

    public static void main(String[] arguments) {}
}
