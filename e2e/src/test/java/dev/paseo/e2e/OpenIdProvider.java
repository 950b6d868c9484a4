package dev.paseo.e2e;

import com.nimbusds.jose.JOSEException;
import com.nimbusds.jose.JWSAlgorithm;
import com.nimbusds.jose.JWSHeader;
import com.nimbusds.jose.crypto.RSASSASigner;
import com.nimbusds.jose.jwk.RSAKey;
import com.nimbusds.jose.jwk.gen.RSAKeyGenerator;
import com.nimbusds.jwt.JWTClaimsSet;
import com.nimbusds.jwt.SignedJWT;
import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.Arrays;
import java.util.Date;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;

/** A small provider of sign-ins by OpenID Connect, on loopback: whoever comes is the person that the test says. */
final class OpenIdProvider implements AutoCloseable {

    private final HttpServer server;
    private final RSAKey key;
    private final RSAKey other;
    private final Map<String, String> nonces = new ConcurrentHashMap<>();
    private final Map<String, String> challenges = new ConcurrentHashMap<>();
    /** Claims of whoever signs in next. */
    Map<String, Object> claims = Map.of();
    boolean signsWithAnotherKey;

    OpenIdProvider() throws IOException, JOSEException {
        key = new RSAKeyGenerator(2048).keyID("one").generate();
        other = new RSAKeyGenerator(2048).keyID("one").generate();
        server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.createContext("/.well-known/openid-configuration", exchange -> answer(exchange, """
                {"issuer": "%1$s", "authorization_endpoint": "%1$s/authorize", "token_endpoint": "%1$s/token", \
                "jwks_uri": "%1$s/keys", "response_types_supported": ["code"],
                 "subject_types_supported": ["public"], "id_token_signing_alg_values_supported": ["RS256"], \
                "token_endpoint_auth_methods_supported": ["client_secret_basic"]}
                """.formatted(issuer())));
        server.createContext("/keys",
                exchange -> answer(exchange, "{\"keys\": [" + key.toPublicJWK().toJSONString() + "]}"));
        server.createContext("/authorize", this::authorize);
        server.createContext("/token", this::token);
        server.start();
    }

    String issuer() {
        return "http://127.0.0.1:" + server.getAddress().getPort();
    }

    private static Map<String, String> parameters(String text) {
        return Arrays.stream(text.split("&")).map(pair -> pair.split("=", 2))
                .collect(Collectors.toMap(pair -> pair[0], pair -> URLDecoder.decode(pair[1], StandardCharsets.UTF_8)));
    }

    private void authorize(HttpExchange exchange) throws IOException {
        Map<String, String> asked = parameters(exchange.getRequestURI().getRawQuery());
        String code = "code-" + System.nanoTime();
        nonces.put(code, asked.get("nonce"));
        challenges.put(code, asked.get("code_challenge"));
        exchange.getResponseHeaders().add("Location", asked.get("redirect_uri") + "?code=" + code + "&state="
                + java.net.URLEncoder.encode(asked.get("state"), StandardCharsets.UTF_8));
        exchange.sendResponseHeaders(302, -1);
        exchange.close();
    }

    private void token(HttpExchange exchange) throws IOException {
        Map<String, String> asked = parameters(
                new String(exchange.getRequestBody().readAllBytes(), StandardCharsets.UTF_8));
        String nonce = nonces.remove(asked.get("code"));
        if (nonce == null || !challenges.get(asked.get("code")).equals(challenge(asked.get("code_verifier")))) {
            exchange.sendResponseHeaders(400, -1);
            exchange.close();
            return;
        }
        Map<String, Object> all = new LinkedHashMap<>(
                Map.of("iss", issuer(), "aud", "paseo", "sub", "4711", "nonce", nonce));
        all.putAll(claims);
        JWTClaimsSet.Builder built = new JWTClaimsSet.Builder().issueTime(new Date())
                .expirationTime(Date.from(Instant.now().plusSeconds(300)));
        all.forEach(built::claim);
        SignedJWT token = new SignedJWT(new JWSHeader.Builder(JWSAlgorithm.RS256).keyID("one").build(), built.build());
        try {
            token.sign(new RSASSASigner(signsWithAnotherKey ? other : key));
        } catch (JOSEException impossible) {
            throw new IllegalStateException(impossible);
        }
        answer(exchange,
                "{\"access_token\": \"for-nothing\", \"token_type\": \"Bearer\", \"expires_in\": 300, \"id_token\": \""
                        + token.serialize() + "\"}");
    }

    private static String challenge(String verifier) {
        try {
            return java.util.Base64.getUrlEncoder().withoutPadding().encodeToString(java.security.MessageDigest
                    .getInstance("SHA-256").digest(verifier.getBytes(StandardCharsets.US_ASCII)));
        } catch (java.security.NoSuchAlgorithmException impossible) {
            throw new IllegalStateException(impossible);
        }
    }

    private static void answer(HttpExchange exchange, String json) throws IOException {
        byte[] body = json.getBytes(StandardCharsets.UTF_8);
        exchange.getResponseHeaders().add("Content-Type", "application/json");
        exchange.sendResponseHeaders(200, body.length);
        exchange.getResponseBody().write(body);
        exchange.close();
    }

    @Override
    public void close() {
        server.stop(0);
    }
}
