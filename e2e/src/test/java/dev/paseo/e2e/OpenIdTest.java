package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.net.CookieManager;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInstance;
import tools.jackson.databind.JsonNode;

/** Signing in with a provider, by OpenID Connect. */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
class OpenIdTest {

    private Park park;
    private OpenIdProvider provider;

    @BeforeAll
    void open() throws Exception {
        park = new Park();
        provider = new OpenIdProvider();
        park.closeToo(provider);
        int port = Processes.freePort();
        park.startService("--server.port=" + port, "--paseo.address=http://127.0.0.1:" + port,
                "--paseo.provider.issuer=" + provider.issuer(), "--paseo.provider.client-secret=shared",
                "--paseo.provider.new-accounts=true", "--paseo.provider.label=Sign in as a ranger");
        park.accounts();
    }

    @AfterAll
    void close() {
        park.close();
    }

    /** A browser: it keeps cookies, and follows wherever it is sent, until it is back on a page of the console. */
    private final class Ranger {

        private final HttpClient http = HttpClient.newBuilder().cookieHandler(new CookieManager()).build();

        HttpResponse<String> get(String address) throws IOException, InterruptedException {
            return http.send(HttpRequest.newBuilder(URI.create(address)).build(), HttpResponse.BodyHandlers.ofString());
        }

        /** Where it was sent at last. */
        String follow(String address) throws IOException, InterruptedException {
            String at = address;
            for (int hop = 0; hop < 10; hop++) {
                HttpResponse<String> answer = get(at);
                if (answer.statusCode() != 302) {
                    return at.substring(park.address().length());
                }
                at = URI.create(at).resolve(answer.headers().firstValue("Location").orElseThrow()).toString();
            }
            throw new AssertionError("sent around in a circle: " + at);
        }

        String signIn(Map<String, Object> claims) throws IOException, InterruptedException {
            provider.claims = claims;
            return follow(park.address() + "/sign-in/with-provider");
        }

        JsonNode me() throws IOException, InterruptedException {
            return Client.JSON.readTree(get(park.address() + "/api/v1/session").body());
        }
    }

    @Test
    void whoIsNewGetsAnAccountWithTheRolesOfTheirGroups() throws Exception {
        park.as("admin").put("/api/v1/groups/rangers", Map.of("roles", List.of("release-engineer"))).good();
        Ranger ranger = new Ranger();
        assertEquals("/", ranger.signIn(Map.of("sub", "1", "preferred_username", "North.Ranger", "email",
                "north@park.example", "email_verified", true, "groups", List.of("rangers", "night shift!"))));
        assertEquals("north.ranger", ranger.me().path("name").asString());
        assertEquals("[\"rangers\"]", ranger.me().path("groups").toString());
        assertTrue(ranger.me().path("may").toString().contains("PROMOTE"));
        assertEquals("/", ranger.signIn(Map.of("sub", "1", "preferred_username", "renamed", "groups", List.of())),
                "who it is goes by the subject");
        assertEquals("north.ranger", ranger.me().path("name").asString());
        assertEquals("[]", ranger.me().path("groups").toString(), "what the provider gave it takes");
        String trail = park.as("auditor").get("/api/v1/audit?limit=100").good().toString();
        assertTrue(trail.contains("signed in with the provider for the first time")
                && trail.contains("groups of the provider"));
        park.as("admin").put("/api/v1/accounts/north.ranger/disabled", Map.of("reason", "left")).good();
        assertEquals(401, ranger.get(park.address() + "/api/v1/session").statusCode());
        assertEquals("/sign-in?because=disabled", ranger.signIn(Map.of("sub", "1")));
    }

    @Test
    void whoHasAnAccountIsTiedByTheVerifiedAddressAlone() throws Exception {
        Ranger impostor = new Ranger();
        assertEquals("/sign-in?because=unknown",
                impostor.signIn(Map.of("sub", "66", "email", "developer@park.example", "email_verified", false)));
        Ranger developer = new Ranger();
        assertEquals("/",
                developer.signIn(Map.of("sub", "2", "email", "Developer@Park.example", "email_verified", true)));
        assertEquals("developer", developer.me().path("name").asString());
        assertEquals("/sign-in?because=disabled",
                new Ranger().signIn(Map.of("sub", "67", "email", "developer@park.example", "email_verified", true)),
                "an account is tied once");
        assertEquals("/sign-in?because=unknown",
                new Ranger().signIn(Map.of("sub", "68", "preferred_username", "admin")),
                "nobody takes a name that is there");
        assertEquals("{\"signedIn\":false,\"provider\":\"Sign in as a ranger\"}",
                impostor.get(park.address() + "/api/v1/sign-in-ways").body());
    }

    @Test
    void whatIsForgedSignsNobodyIn() throws Exception {
        Map<String, Object> somebody = Map.of("sub", "3", "preferred_username", "forged");
        Ranger ranger = new Ranger();
        for (Map<String, Object> wrong : List.<Map<String, Object>>of(Map.of("aud", "another-service"),
                Map.of("iss", "http://elsewhere.example"), Map.of("nonce", "another"),
                Map.of("exp", new java.util.Date(0)))) {
            Map<String, Object> claims = new java.util.HashMap<>(somebody);
            claims.putAll(wrong);
            assertEquals("/sign-in?because=provider", ranger.signIn(claims), wrong::toString);
        }
        provider.signsWithAnotherKey = true;
        assertEquals("/sign-in?because=provider", ranger.signIn(somebody));
        provider.signsWithAnotherKey = false;
        // Somebody else's way back, opened in this browser: it did not leave with this state.
        Ranger attacker = new Ranger();
        provider.claims = somebody;
        String toProvider = attacker.get(park.address() + "/sign-in/to/provider").headers().firstValue("Location")
                .orElseThrow();
        String back = new Ranger().get(toProvider).headers().firstValue("Location").orElseThrow();
        assertEquals("/sign-in?because=provider", ranger.follow(back));
        assertEquals(401, ranger.get(park.address() + "/api/v1/session").statusCode());
    }

    @Test
    void aProviderThatIsAwayKeepsNothingFromStarting() throws Exception {
        try (Park other = new Park()) {
            other.startService("--paseo.provider.issuer=http://127.0.0.1:" + Processes.freePort());
            HttpResponse<String> sent = new Ranger().get(other.address() + "/sign-in/with-provider");
            assertTrue(sent.headers().firstValue("Location").orElseThrow().endsWith("/sign-in?because=provider-away"),
                    sent::toString);
        }
    }
}
