package dev.paseo.service.reach;

import static org.junit.jupiter.api.Assertions.assertDoesNotThrow;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import dev.paseo.service.problem.Refusal;
import dev.paseo.service.reach.Reach.Kind;
import dev.paseo.service.settings.Settings;
import java.net.InetAddress;
import java.net.UnknownHostException;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ReachTest {

    private final Settings settings = mock(Settings.class);
    /** What the name stands for, from one look to the next. */
    private final Deque<String> stands = new ArrayDeque<>();

    private Reach reach(String allowed, String... networks) {
        when(settings.allowedStores()).thenReturn(List.of(allowed));
        when(settings.allowedNetworks()).thenReturn(List.of(networks));
        return new Reach(settings, host -> {
            if (stands.isEmpty()) {
                throw new UnknownHostException(host);
            }
            return List.of(InetAddress.getByName("192.0.2.1"), InetAddress.getByName(stands.pop()));
        });
    }

    @ParameterizedTest
    @CsvSource({
            "https://git.park.example/times, https://git.park.example, true",
            "https://git.park.example/times, https://git.park.example/, true",
            "https://git.park.example.evil/times, https://git.park.example, false",
            "https://git.park.example/times-too, https://git.park.example/times, false",
            "https://git.park.example/times, https://git.park.example/times, true",
            "http://2130706433/x, http://127.0.0.1, false",
            "file:///srv/git/x, /srv/git, false"})
    void aBeginningCountsUpToASlash(String address, String allowed, boolean below) {
        assertEquals(below, reach(allowed).reasonAgainst(Kind.STORE, address).isEmpty());
    }

    @Test
    void whatIsNotListedIsToldWithTheList() {
        Refusal refused = assertThrows(Refusal.class,
                () -> reach("https://stores.park.example").allow(Kind.STORE, "https://elsewhere.example/x"));
        assertEquals(
                "https://elsewhere.example/x is not below an address that may be observed, which are "
                        + "https://stores.park.example; an operator sets them in paseo.allowed-stores",
                refused.getMessage());
    }

    /**
     * The name is the one that is allowed; what it stands for has become the machine itself, and where clouds hand out
     * credentials.
     */
    @ParameterizedTest
    @CsvSource({"127.0.0.1, which is this machine itself", "::1, which is this machine itself",
            "169.254.169.254, which is an address of the link alone", "0.0.0.0, which is no address of one machine"})
    void aNameThatHasComeToStandForSomethingElseIsNotAsked(String address, String why) {
        Reach reach = reach("https://stores.park.example");
        stands.add("192.0.2.7");
        stands.add(address);
        assertEquals(2, reach.allow(Kind.STORE, "https://stores.park.example/x").size());
        Refusal refused = assertThrows(Refusal.class, () -> reach.allow(Kind.STORE, "https://stores.park.example/x"));
        assertEquals(Refusal.Kind.NOT_ALLOWED, refused.kind());
        String found = InetAddress.ofLiteral(address).getHostAddress();
        assertEquals("stores.park.example resolves to " + found + ", " + why
                + ": it is not contacted; an operator may allow the address in paseo.allowed-stores, or its network in "
                + "paseo.allowed-networks", refused.getMessage());
    }

    @Test
    void anAddressThatIsListedItselfIsAsked() {
        assertEquals(List.of(), reach("http://127.0.0.1:7690").allow(Kind.STORE, "http://127.0.0.1:7690/v2/"));
        assertEquals(List.of(), reach("http://[::1]:7690").allow(Kind.STORE, "http://[::1]:7690/v2/"));
        assertEquals(List.of(), reach("http://localhost:7690").allow(Kind.STORE, "http://localhost:7690/v2/"));
    }

    @Test
    void whereNetworksAreAllowedNamesLieInThem() {
        Reach reach = reach("https://stores.park.example", "192.0.2.0/24", "127.0.0.0/8");
        stands.addAll(List.of("127.0.0.1", "192.0.3.1"));
        assertDoesNotThrow(() -> reach.allow(Kind.STORE, "https://stores.park.example/x"));
        assertTrue(assertThrows(Refusal.class, () -> reach.allow(Kind.STORE, "https://stores.park.example/x"))
                .getMessage().contains("192.0.3.1, which is in none of the networks that are allowed"));
    }

    @Test
    void aNameThatNobodyKnowsIsUnavailable() {
        assertEquals("No address is known for stores.park.example",
                assertThrows(Refusal.class,
                        () -> reach("https://stores.park.example").allow(Kind.STORE, "https://stores.park.example/x"))
                        .getMessage());
        assertEquals("http://a_b/x names no host",
                assertThrows(Refusal.class, () -> reach("http://a_b").allow(Kind.STORE, "http://a_b/x")).getMessage());
    }

    @Test
    void aNetworkThatIsNoneKeepsTheServiceFromStarting() {
        assertTrue(
                assertThrows(IllegalArgumentException.class, () -> reach("https://stores.park.example", "10.0.0.0/99"))
                        .getMessage().contains("such as 10.0.0.0/8"));
    }
}
