package dev.paseo.service.piece;

import dev.paseo.language.piece.Described;
import dev.paseo.language.piece.Missing;
import dev.paseo.language.piece.PieceSource.Found;
import dev.paseo.language.piece.PieceSource.Release;
import dev.paseo.language.piece.PipelineText;
import dev.paseo.language.piece.Standing;
import dev.paseo.service.component.Components;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.pipeline.PipelineFiles;
import dev.paseo.service.pipeline.Releases;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;
import org.springframework.stereotype.Component;

/** Who uses the pieces of a component, in which version, and what their next run would take. */
@Component
class PieceUsers {

    /**
     * A use of a piece by the main branch of a component.
     *
     * @param at       the part for which it stands; empty: all parts that it has
     * @param wanted   which version it asks for
     * @param version  in force now; absent: its file could not be put together
     * @param digest   SHA-256 of the piece in that version
     * @param next     the version that its next run would take; absent: none, and why says so
     * @param standing how that stands to what there is
     * @param through  the piece by which it uses this one
     */
    record UserView(String component, String piece, String at, String wanted, Optional<String> version,
            Optional<String> digest, Optional<String> next, Standing standing, Optional<String> why,
            Optional<String> through) {}

    /**
     * A piece, for whoever would use it.
     *
     * @param users how many components use it
     */
    record PieceView(Described piece, int users) {}

    /**
     * The pieces of a component.
     *
     * @param version the newest that others can take; absent: none is sealed, and these are those of its main branch
     */
    record PiecesView(Optional<String> version, List<PieceView> pieces) {}

    private final PieceMapper mapper;
    private final Releases releases;
    private final PipelineFiles files;
    private final Components components;

    PieceUsers(PieceMapper mapper, Releases releases, PipelineFiles files, Components components) {
        this.mapper = mapper;
        this.releases = releases;
        this.files = files;
        this.components = components;
    }

    PiecesView pieces(RegisteredComponent component, Predicate<String> seen) {
        Optional<Release> newest = newest(component.name(), Releases.NEWEST);
        List<Described> all = newest.map(release -> PipelineText.piecesOf(release.text()))
                .orElseGet(() -> Optional.ofNullable(components.heads(component.id()).get(component.mainBranch()))
                        .map(head -> PipelineText.piecesOf(
                                files.written(components.readFile(component, head).id())))
                        .orElse(List.of()));
        List<UserView> users = users(component, seen);
        return new PiecesView(newest.map(Release::version), all.stream().map(piece -> new PieceView(piece,
                (int) users.stream().filter(user -> user.piece().equals(piece.name())).map(UserView::component)
                        .distinct().count()))
                .toList());
    }

    private Optional<Release> newest(String name, String wanted) {
        return releases.next(name, wanted) instanceof Found.Is(Release release) ? Optional.of(release)
                : Optional.empty();
    }

    /** @param seen the components that may be told of */
    List<UserView> users(RegisteredComponent component, Predicate<String> seen) {
        Known known = new Known(component.name());
        List<UserView> users = new ArrayList<>();
        for (PieceMapper.LostRow row : mapper.lost()) {
            if (seen.test(row.component())) {
                files.text(row.componentId(), row.component(), row.text()).missing().stream()
                        .filter(missing -> components.nameNow(missing.named()).equals(component.name()))
                        .forEach(missing -> users.add(lost(row, missing)));
            }
        }
        mapper.uses(component.id()).stream().filter(row -> seen.test(row.component()))
                .forEach(row -> users.add(known.user(row)));
        return users;
    }

    private static UserView lost(PieceMapper.LostRow row, Missing missing) {
        return new UserView(row.component(), missing.piece(), "", missing.wanted(), Optional.empty(),
                Optional.empty(), Optional.empty(), Standing.BROKEN,
                Optional.of("the piece " + missing.piece() + " " + missing.why()), Optional.empty());
    }

    /** What there is of a component's pieces, looked up once for all who use them. */
    private final class Known {

        private final String name;
        private final Map<String, Found> next = new HashMap<>();
        private final Map<String, Map<String, String>> digests = new HashMap<>();

        private Known(String name) {
            this.name = name;
        }

        private UserView user(PieceMapper.UseRow row) {
            Found found = next.computeIfAbsent(row.wanted(), wanted -> releases.next(name, wanted));
            Optional<Standing.At> now = row.opened() ? at(found, row.piece()) : Optional.empty();
            Standing standing = Standing.of(new Standing.At(row.version(), row.digest()), now, at(next
                    .computeIfAbsent(Releases.NEWEST, wanted -> releases.next(name, wanted)), row.piece()));
            return new UserView(row.component(), row.piece(), row.place(), row.wanted(), Optional.of(row.version()),
                    Optional.of(row.digest()), now.map(Standing.At::version), standing,
                    now.isPresent() ? Optional.empty() : Optional.of(why(row, found)),
                    Optional.ofNullable(row.within()));
        }

        private String why(PieceMapper.UseRow row, Found found) {
            return !row.opened() ? name + " is not opened to " + row.component() + " any more"
                    : "the piece " + row.piece() + switch (found) {
                        case Found.Is(Release release) -> " is not there any more in " + release.version();
                        case Found.Not(String why) -> " " + why;
                    };
        }

        private Optional<Standing.At> at(Found found, String piece) {
            if (!(found instanceof Found.Is(Release release))) {
                return Optional.empty();
            }
            Map<String, String> pieces = digests.computeIfAbsent(release.version(), version -> {
                Map<String, String> read = new HashMap<>();
                PipelineText.piecesOf(release.text()).forEach(each -> read.put(each.name(), each.digest()));
                return read;
            });
            return Optional.ofNullable(pieces.get(piece)).map(digest -> new Standing.At(release.version(), digest));
        }
    }
}
