package dev.paseo.api.address;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.net.InetAddress;
import java.net.UnknownHostException;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class NetworkTest {

    @ParameterizedTest
    @CsvSource({"127.0.0.1, which is this machine itself", "127.9.9.9, which is this machine itself",
            "::1, which is this machine itself",
            "::ffff:127.0.0.1, which is this machine itself", "169.254.169.254, which is an address of the link alone",
            "fe80::1, which is an address of the link alone",
            "64:ff9b::169.254.169.254, which is an address of the link alone",
            "2002:7f00:1::1, which is this machine itself", "0.0.0.0, which is no address of one machine",
            "0.1.2.3, which is no address of one machine", "::, which is no address of one machine",
            "224.0.0.1, which is no address of one machine", "ff02::1, which is no address of one machine"})
    void whatANameMayNotStandFor(String address, String why) throws UnknownHostException {
        assertEquals(why, Network.reasonAgainst(InetAddress.getByName(address), List.of()).orElseThrow());
    }

    @ParameterizedTest
    @ValueSource(strings = {"10.1.2.3", "192.168.1.1", "192.0.2.7", "2001:db8::7", "fd00::1", "2002:c000:207::1",
            "64:ff9b::192.0.2.7", "1.0.0.0"})
    void whatANameMayStandFor(String address) throws UnknownHostException {
        assertTrue(Network.reasonAgainst(InetAddress.getByName(address), List.of()).isEmpty());
    }

    @Test
    void whereNetworksAreAllowedNoOtherIs() throws UnknownHostException {
        List<Network> allowed = List.of(Network.of("10.1.0.0/16"), Network.of("fd00::/8"));
        assertTrue(Network.reasonAgainst(InetAddress.getByName("10.1.255.255"), allowed).isEmpty());
        assertTrue(Network.reasonAgainst(InetAddress.getByName("fd12::1"), allowed).isEmpty());
        assertEquals("which is in none of the networks that are allowed",
                Network.reasonAgainst(InetAddress.getByName("10.2.0.0"), allowed).orElseThrow());
        assertTrue(Network.reasonAgainst(InetAddress.getByName("192.0.2.7"), allowed).isPresent());
    }

    /** Against a reckoning of its own: the first bits as a number. */
    @Test
    void anAddressIsInItsNetworkAndInNoOther() throws UnknownHostException {
        Random random = new Random(17);
        for (int round = 0; round < 20_000; round++) {
            int bits = random.nextInt(33);
            int one = random.nextInt();
            int other = random.nextBoolean() ? one ^ 1 << random.nextInt(32) : random.nextInt();
            long mask = bits == 0 ? 0 : -1L << 32 - bits & 0xffffffffL;
            assertEquals((one & mask) == (other & mask),
                    Network.of(InetAddress.getByAddress(bytes(one)).getHostAddress() + "/" + bits)
                            .contains(InetAddress.getByAddress(bytes(other))));
        }
    }

    private static byte[] bytes(int number) {
        return new byte[]{(byte) (number >> 24), (byte) (number >> 16), (byte) (number >> 8), (byte) number};
    }

    @ParameterizedTest
    @ValueSource(strings = {"10.0.0.0", "10.0.0.0/33", "::/129", "park.example/8", "10.0.0.0/-1", "10.0.0.0/8/8", "/8",
            "", "10.0.0/8.", "999.0.0.1/8"})
    void whatIsNoNetworkIsRefused(String text) {
        assertTrue(assertThrows(IllegalArgumentException.class, () -> Network.of(text)).getMessage()
                .contains("such as 10.0.0.0/8; got '" + text + "'"));
    }

    @Test
    void anAddressIsToldFromAName() {
        assertTrue(Network.literal("127.0.0.1") && Network.literal("[::1]"));
        assertFalse(Network.literal("stores.park.example") || Network.literal("localhost")
                || Network.literal("127.park.example"));
        assertEquals("10.0.0.0/8", Network.of(" 10.0.0.0/8").toString());
        assertEquals(Network.of("10.0.0.0/8"), Network.of("10.0.0.0/8"));
    }
}
