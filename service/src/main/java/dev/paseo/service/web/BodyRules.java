package dev.paseo.service.web;

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
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.servlet.mvc.method.annotation.RequestBodyAdviceAdapter;

/** Every body of the API is read no further than it may be long, and is held against {@link FieldRules} before anything is done. */
@RestControllerAdvice
class BodyRules extends RequestBodyAdviceAdapter {

    /** The most bytes of a body in JSON. Bytes that are kept come as they are, by addresses of their own. */
    static final int LARGEST_BODY = 4 << 20;

    @Override
    public boolean supports(MethodParameter parameter, Type type, Class<? extends HttpMessageConverter<?>> converter) {
        RequestMapping of = AnnotatedElementUtils.findMergedAnnotation(parameter.getContainingClass(), RequestMapping.class);
        // Agents have a protocol and limits of their own.
        return of == null || Arrays.stream(of.path()).noneMatch(path -> path.startsWith("/agent/"));
    }

    @Override
    public HttpInputMessage beforeBodyRead(HttpInputMessage message, MethodParameter parameter, Type type, Class<? extends HttpMessageConverter<?>> converter) throws IOException {
        InputStream body = new Bounded(message.getBody());
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

    @Override
    public Object afterBodyRead(Object body, HttpInputMessage message, MethodParameter parameter, Type type, Class<? extends HttpMessageConverter<?>> converter) {
        List<Refusal.Field> wrong = body instanceof byte[] || body instanceof String ? List.of() : FieldRules.of(body);
        if (!wrong.isEmpty()) {
            throw Refusal.invalid(wrong);
        }
        return body;
    }

    private static final class Bounded extends FilterInputStream {

        private long left = LARGEST_BODY;

        Bounded(InputStream in) {
            super(in);
        }

        private int counted(int read) {
            left -= Math.max(0, read);
            if (left < 0) {
                throw Refusal.tooLarge("a body in JSON has at most " + LARGEST_BODY + " bytes");
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
