package dev.paseo.service.notice;

import dev.paseo.core.access.Person;
import dev.paseo.service.permission.Permission;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** What the reader is told, and how soon they want to be. */
@RestController
@RequestMapping("/api/v1")
class NoticeController {

    /** Where a link of a mail leads to. */
    record MailLinkView(String path) {}

    private final OwnNotices notices;
    private final MailLinks links;

    NoticeController(OwnNotices notices, MailLinks links) {
        this.notices = notices;
        this.links = links;
    }

    /** Lists your newest notices, at most 100. */
    @GetMapping("/notices")
    OwnNotices.NoticesView newest(@AuthenticationPrincipal Person person) {
        Permission.unlimited(person, "see or change what they are told");
        return notices.newest(person);
    }

    /** Marks notices as read, up to a number. */
    @PostMapping("/notices/read")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void read(@AuthenticationPrincipal Person person, @RequestBody OwnNotices.ReadRequest request) {
        Permission.unlimited(person, "see or change what they are told");
        notices.read(person, request);
    }

    /** Which notices reach you, and how. */
    @GetMapping("/notices/choices")
    OwnNotices.ChoicesView choices(@AuthenticationPrincipal Person person) {
        Permission.unlimited(person, "see or change what they are told");
        return notices.choices(person);
    }

    /** Chooses how notices of one kind reach you. */
    @PutMapping("/notices/choices")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void choose(@AuthenticationPrincipal Person person, @RequestBody OwnNotices.ChoiceRequest request) {
        Permission.unlimited(person, "see or change what they are told");
        notices.choose(person, request);
    }

    /** Drops your own choice for one component: you are told of it as of all others. */
    @DeleteMapping("/notices/choices/{component}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void asElsewhere(@AuthenticationPrincipal Person person, @PathVariable String component) {
        Permission.unlimited(person, "see or change what they are told");
        notices.asElsewhere(person, component);
    }

    /** Uses a link of a mail, once, by the account that it was sent to. It decides nothing. */
    @PostMapping("/links/{token}")
    MailLinkView use(@AuthenticationPrincipal Person person, @PathVariable String token) {
        Permission.unlimited(person, "see or change what they are told");
        return new MailLinkView(links.use(token, person));
    }
}
