package dev.paseo.service.agent;

import dev.paseo.service.problem.Refusal;
import dev.paseo.service.problem.ProblemAnswer;
import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Set;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/** Nothing is read of what an agent sends before it is known whose it is; only to be enrolled needs no secret yet. */
@Component
class AgentFilter extends OncePerRequestFilter {

    /** For whoever is no agent yet. */
    private static final Set<String> OPEN = Set.of("/agent/v1/enrolment", AgentArchive.PATH);

    private final Agents agents;
    private final WorkBoard board;

    AgentFilter(Agents agents, WorkBoard board) {
        this.agents = agents;
        this.board = board;
    }

    @Override
    protected boolean shouldNotFilter(HttpServletRequest request) {
        return !request.getRequestURI().startsWith("/agent/") || OPEN.contains(request.getRequestURI());
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        String authorization = request.getHeader("Authorization");
        String token = authorization == null ? "" : authorization.replaceFirst("^Bearer ", "");
        boolean lease = request.getRequestURI().startsWith("/agent/v1/lease");
        if (lease ? board.ofLease(token).isPresent() : agents.bySecret(token).isPresent()) {
            chain.doFilter(request, response);
            return;
        }
        ProblemAnswer.write(response, lease ? Refusal.gone("This lease has ended")
                : Refusal.signedOut("No agent is enrolled with this token"));
    }
}
