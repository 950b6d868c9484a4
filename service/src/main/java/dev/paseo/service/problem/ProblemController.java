package dev.paseo.service.problem;

import dev.paseo.core.text.Word;
import java.util.Arrays;
import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;

/** What each type of problem means; for whoever asks. */
@RestController
class ProblemController {

    /**
     * @param name    the last part of its {@code type}
     * @param meaning what it means and what to do; field names stand between backquotes
     */
    record ProblemView(String name, int status, String meaning) {}

    /** Every type of problem that an answer may have. */
    @GetMapping("/api/v1/problems")
    List<ProblemView> problems() {
        return Arrays.stream(Refusal.Kind.values())
                .map(kind -> new ProblemView(Word.of(kind), kind.status(), kind.words())).toList();
    }
}
