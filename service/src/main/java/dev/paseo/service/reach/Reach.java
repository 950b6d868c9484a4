package dev.paseo.service.reach;

import dev.paseo.api.address.Network;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.settings.Settings;
import java.net.InetAddress;
import java.net.URI;
import java.net.UnknownHostException;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.stereotype.Component;

/**
 * Which addresses the service asks: those below a beginning that an operator allows; and where such an address has a
 * name, only if what the name stands for may be asked too. Both are looked at before every request, since names change.
 */
@Component
public class Reach {

    private final Settings settings;
    private final Resolver resolver;
    private final List<Network> networks;

    /** How names are resolved. */
    interface Resolver {
        List<InetAddress> addresses(String host) throws UnknownHostException;
    }

    /** What is asked. */
    public enum Kind {
        SOURCE("a place from which components may come", "paseo.allowed-sources", Settings::allowedSources),
        STORE("an address that may be observed", "paseo.allowed-stores", Settings::allowedStores),
        RECEIVER("an address that may be told or asked", "paseo.allowed-receivers", Settings::allowedReceivers);

        private final String words;
        private final String setting;
        private final Function<Settings, List<String>> allowed;

        Kind(String words, String setting, Function<Settings, List<String>> allowed) {
            this.words = words;
            this.setting = setting;
            this.allowed = allowed;
        }
    }

    @Autowired
    public Reach(Settings settings) {
        this(settings, host -> Arrays.asList(InetAddress.getAllByName(host)));
    }

    Reach(Settings settings, Resolver resolver) {
        this.settings = settings;
        this.resolver = resolver;
        this.networks = settings.allowedNetworks().stream().map(Network::of).toList();
    }

    /** What speaks against asking it by what it is called; empty where nothing does. Resolves nothing. */
    public Optional<Refusal> reasonAgainst(Kind kind, String address) {
        if (kind.allowed.apply(settings).stream().noneMatch(allowed -> beginsWith(address, allowed))) {
            List<String> allowed = kind.allowed.apply(settings).stream().filter(each -> each.contains("://")).toList();
            return Optional.of(Refusal.notAllowed(address + " is not below " + kind.words
                    + (allowed.isEmpty() ? "" : ", which are " + String.join(", ", allowed))
                    + "; an operator sets them in " + kind.setting));
        }
        return Optional.ofNullable(URI.create(address).getHost()).isEmpty()
                ? Optional.of(Refusal.notAllowed(address + " names no host")) : Optional.empty();
    }

    /** Refuses what may not be asked; what the name stands for otherwise, none for one that is an address itself. */
    public List<InetAddress> allow(Kind kind, String address) {
        reasonAgainst(kind, address).ifPresent(refusal -> {
            throw refusal;
        });
        String host = URI.create(address).getHost();
        if (Network.literal(host) || host.equalsIgnoreCase("localhost")) {
            return List.of();
        }
        try {
            List<InetAddress> addresses = resolver.addresses(host);
            addresses.forEach(each -> Network.reasonAgainst(each, networks).ifPresent(why -> {
                throw Refusal.notAllowed(host + " resolves to " + each.getHostAddress() + ", " + why
                        + ": it is not contacted; an operator may allow the address in " + kind.setting
                        + ", or its network in paseo.allowed-networks");
            }));
            return addresses;
        } catch (UnknownHostException unknown) {
            throw Refusal.unavailable("No address is known for " + host);
        }
    }

    /** Whether an address lies below an allowed one; a beginning counts up to a slash alone. */
    static boolean beginsWith(String address, String allowed) {
        return allowed.contains("://")
                && (address.equals(allowed) || address.startsWith(allowed.endsWith("/") ? allowed : allowed + "/"));
    }
}
