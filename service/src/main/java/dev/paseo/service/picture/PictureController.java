package dev.paseo.service.picture;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.permission.Permission;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping("/api/v1/pictures")
class PictureController {

    /** The SHA-256 of a picture that is kept. */
    record PictureView(String digest) {}

    private final Pictures pictures;

    PictureController(Pictures pictures) {
        this.pictures = pictures;
    }

    /** Keeps a PNG or JPEG of at most 5 MB, for a tick of a checklist. */
    @PostMapping(consumes = {MediaType.IMAGE_PNG_VALUE, MediaType.IMAGE_JPEG_VALUE})
    @ResponseStatus(HttpStatus.CREATED)
    PictureView upload(@AuthenticationPrincipal Person person, HttpServletRequest request) throws IOException {
        Permission.require(person, Action.DECIDE);
        return new PictureView(pictures.keep(request.getInputStream(), person.id()));
    }

    /** A picture that was given with a tick. */
    @GetMapping("/{digest}")
    void show(@AuthenticationPrincipal Person person, @PathVariable String digest, HttpServletResponse response)
            throws IOException {
        Permission.require(person, Action.LOOK);
        Pictures.Picture picture = pictures.read(digest);
        response.setContentType(picture.type());
        response.setHeader("X-Content-Type-Options", "nosniff");
        response.getOutputStream().write(picture.bytes());
    }
}
