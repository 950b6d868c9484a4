package dev.paseo.api.address;

import java.net.InetAddress;
import java.net.UnknownHostException;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;

/**
 * A network, written as an address and the length of its prefix, such as {@code 10.0.0.0/8} (RFC 4632, RFC 4291).
 *
 * @param address 4 or 16 bytes
 * @param bits    0 to 32, or to 128
 */
public record Network(byte[] address, int bits) {

    private static final Pattern LITERAL = Pattern.compile("[0-9.]{7,15}|[0-9A-Fa-f:.]*:[0-9A-Fa-f:.]*");

    /** Where an address of IPv4 stands within one of IPv6: mapped by a gateway (RFC 6052), or in 6to4 (RFC 3056). */
    private static final List<Carrier> CARRIERS = List.of(new Carrier(of("64:ff9b::/96"), 12),
            new Carrier(of("2002::/16"), 2));

    private record Carrier(Network network, int at) {}

    /** @throws IllegalArgumentException where it is no network; the message says what is right */
    public static Network of(String text) {
        String[] parts = text.strip().split("/", -1);
        try {
            if (parts.length == 2 && LITERAL.matcher(parts[0]).matches() && parts[1].matches("[0-9]{1,3}")) {
                byte[] address = InetAddress.getByName(parts[0]).getAddress();
                int bits = Integer.parseInt(parts[1]);
                if (bits <= address.length * 8) {
                    return new Network(address, bits);
                }
            }
        } catch (UnknownHostException wrong) {
            // Said below: it is no address.
        }
        throw new IllegalArgumentException(
                "a network is an address and the length of its prefix, such as 10.0.0.0/8; got '" + text + "'");
    }

    public boolean contains(InetAddress other) {
        byte[] bytes = other.getAddress();
        if (bytes.length != address.length) {
            return false;
        }
        for (int bit = 0; bit < bits; bit++) {
            int mask = 0x80 >> bit % 8;
            if ((bytes[bit / 8] & mask) != (address[bit / 8] & mask)) {
                return false;
            }
        }
        return true;
    }

    /** Whether a host is written as an address, so that no name stands between what is allowed and what is asked. */
    public static boolean literal(String host) {
        return LITERAL.matcher(host.startsWith("[") && host.endsWith("]") ? host.substring(1, host.length() - 1) : host)
                .matches();
    }

    /**
     * What speaks against asking an address that a name stands for; empty where nothing does. Where no networks are
     * allowed, any address will do but the machine's own, those of the link (where clouds hand out credentials), and
     * those of nobody or of many.
     */
    public static Optional<String> reasonAgainst(InetAddress address, List<Network> allowed) {
        if (!allowed.isEmpty()) {
            return allowed.stream().anyMatch(each -> each.contains(address)) ? Optional.empty()
                    : Optional.of("which is in none of the networks that are allowed");
        }
        return carried(address).map(Network::special).orElseGet(() -> special(address));
    }

    private static Optional<String> special(InetAddress address) {
        if (address.isLoopbackAddress()) {
            return Optional.of("which is this machine itself");
        }
        if (address.isLinkLocalAddress()) {
            return Optional.of("which is an address of the link alone");
        }
        return address.isAnyLocalAddress() || address.isMulticastAddress()
                || address.getAddress()[0] == 0 && address.getAddress().length == 4
                        ? Optional.of("which is no address of one machine") : Optional.empty();
    }

    private static Optional<InetAddress> carried(InetAddress address) {
        return CARRIERS.stream().filter(each -> each.network().contains(address)).findFirst().map(each -> {
            try {
                return InetAddress.getByAddress(Arrays.copyOfRange(address.getAddress(), each.at(), each.at() + 4));
            } catch (UnknownHostException impossible) {
                throw new IllegalStateException("four bytes are an address", impossible);
            }
        });
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Network that && bits == that.bits && Arrays.equals(address, that.address);
    }

    @Override
    public int hashCode() {
        return Arrays.hashCode(address) * 31 + bits;
    }

    @Override
    public String toString() {
        try {
            return InetAddress.getByAddress(address).getHostAddress() + "/" + bits;
        } catch (UnknownHostException impossible) {
            throw new IllegalStateException("its bytes are an address", impossible);
        }
    }
}
