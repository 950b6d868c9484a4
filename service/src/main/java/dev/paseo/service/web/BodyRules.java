package dev.paseo.service.web;

import dev.paseo.core.text.Size;
import dev.paseo.api.agent.Enrolment;
import dev.paseo.service.problem.Refusal;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.lang.reflect.Type;
import java.util.Arrays;
import java.util.List;
import org.springframework.core.MethodParameter;
import org.springframework.core.annotation.AnnotatedElementUtils;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpInputMessage;
import org.springframework.http.converter.HttpMessageConverter;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.servlet.mvc.method.annotation.RequestBodyAdviceAdapter;

/**
 * Every body of the API is read no further than it may be long, and is held against {@link FieldRules} before anything
 * is done.
 */
@RestControllerAdvice
class BodyRules extends RequestBodyAdviceAdapter {

    /** The most bytes of a body in JSON. Bytes that are kept come as they are, by addresses of their own. */
    static final int LARGEST_BODY = 4_000_000;
    /** The most bytes of one that comes from nobody known yet: to sign in. */
    static final int LARGEST_OF_NOBODY = 16_000;

    @Override
    public boolean supports(MethodParameter parameter, Type type, Class<? extends HttpMessageConverter<?>> converter) {
        return true;
    }

    @Override
    public HttpInputMessage beforeBodyRead(HttpInputMessage message, MethodParameter parameter, Type type,
            Class<? extends HttpMessageConverter<?>> converter) throws IOException {
        boolean enrolling = parameter.getParameterType() == Enrolment.class;
        boolean known = SecurityContextHolder.getContext()
                .getAuthentication() instanceof UsernamePasswordAuthenticationToken
                || ofAgents(parameter) && !enrolling;
        InputStream body = new Bounded(message.getBody(), known ? LARGEST_BODY : LARGEST_OF_NOBODY);
        return new HttpInputMessage() {
            @Override
            public InputStream getBody() {
                return body;
            }

            @Override
            public HttpHeaders getHeaders() {
                return message.getHeaders();
            }
        };
    }

    /** Whoever comes so far at these addresses is known, and they have rules of their own. */
    private static boolean ofAgents(MethodParameter parameter) {
        RequestMapping of = AnnotatedElementUtils.findMergedAnnotation(parameter.getContainingClass(),
                RequestMapping.class);
        return of != null && Arrays.stream(of.path()).anyMatch(path -> path.startsWith("/agent/"));
    }

    @Override
    public Object afterBodyRead(Object body, HttpInputMessage message, MethodParameter parameter, Type type,
            Class<? extends HttpMessageConverter<?>> converter) {
        List<Refusal.Field> wrong = ofAgents(parameter) || body instanceof byte[] || body instanceof String ? List.of()
                : FieldRules.of(body);
        if (!wrong.isEmpty()) {
            throw Refusal.invalid(wrong);
        }
        return body;
    }

    private static final class Bounded extends FilterInputStream {

        private final int most;
        private long left;

        Bounded(InputStream in, int most) {
            super(in);
            this.most = most;
            this.left = most;
        }

        private int counted(int read) {
            left -= Math.max(0, read);
            if (left < 0) {
                throw Refusal.tooLarge("A body in JSON has at most " + Size.words(most));
            }
            return read;
        }

        @Override
        public int read() throws IOException {
            int one = super.read();
            counted(one < 0 ? 0 : 1);
            return one;
        }

        @Override
        public int read(byte[] bytes, int offset, int length) throws IOException {
            return counted(super.read(bytes, offset, length));
        }
    }
}
