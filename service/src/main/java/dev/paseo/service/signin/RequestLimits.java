package dev.paseo.service.signin;

import dev.paseo.core.text.Sha256;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.problem.ProblemAnswer;
import dev.paseo.core.access.Allowance;
import dev.paseo.service.settings.Settings;
import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.LinkedHashMap;
import java.util.Map;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * So many requests a minute for each token, each session, and each address that has neither. Each replica counts for
 * itself.
 */
class RequestLimits extends OncePerRequestFilter {

    private static final int MOST = 20_000;

    private final double perMinute;
    private final double most;
    private final SessionCookie cookie;
    private final Map<String, Allowance> allowances = new LinkedHashMap<>(64, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<String, Allowance> eldest) {
            return size() > MOST;
        }
    };

    RequestLimits(Settings settings, SessionCookie cookie) {
        this.perMinute = settings.requestsPerMinute();
        // What a page or a script asks at once.
        this.most = perMinute / 6;
        this.cookie = cookie;
    }

    @Override
    protected boolean shouldNotFilter(HttpServletRequest request) {
        return !request.getRequestURI().startsWith("/api/") && !request.getRequestURI().startsWith("/actuator/");
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        String who = SignInFilter.bearer(request).or(() -> cookie.of(request)).map(Sha256::hex)
                .orElseGet(request::getRemoteAddr);
        Allowance left = take(who);
        if (!left.exceeded()) {
            chain.doFilter(request, response);
            return;
        }
        ProblemAnswer.write(response, Refusal.tooMany("More than %d requests a minute; try again in %d s"
                .formatted((long) perMinute, left.pause(perMinute).toSeconds()), left.pause(perMinute)));
    }

    private synchronized Allowance take(String who) {
        long now = System.nanoTime();
        Allowance taken = allowances.getOrDefault(who, Allowance.full(most, now)).take(now, perMinute, most);
        allowances.put(who, taken.exceeded() ? taken.givenBack() : taken);
        return taken;
    }
}
