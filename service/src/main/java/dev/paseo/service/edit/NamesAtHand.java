package dev.paseo.service.edit;

import dev.paseo.language.piece.Described;
import dev.paseo.language.piece.PieceSource.Found;
import dev.paseo.language.piece.PipelineText;
import dev.paseo.service.component.Components;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.pipeline.Releases;
import dev.paseo.service.secret.Secrets;
import java.util.List;
import java.util.function.Predicate;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;

/** What a component's pipeline file can name: what is there, and opened to it. */
@Component
class NamesAtHand {

    /**
     * What the newest version of a component keeps, for {@code take}.
     *
     * @param from    the component
     * @param version that keeps it
     */
    record ArtifactName(String from, String artifact, String version) {}

    /**
     * A piece that the file may be like.
     *
     * @param of      whose piece it is
     * @param version the newest that others can take
     */
    record PieceName(String of, String version, Described piece) {}

    /**
     * Names that a pipeline file can use.
     *
     * @param components   that the person may look at
     * @param environments in their order
     * @param offers       of agents, for {@code wants}
     * @param artifacts    of the components that are opened to this one
     * @param secrets      that are opened to this component
     * @param pieces       of the components that are opened to this one
     */
    record NamesView(List<String> components, List<String> environments, List<String> offers,
            List<ArtifactName> artifacts, List<String> secrets, List<PieceName> pieces) {}

    private final NamesMapper mapper;
    private final Components components;
    private final Secrets secrets;
    private final Releases releases;

    NamesAtHand(NamesMapper mapper, Components components, Secrets secrets, Releases releases) {
        this.mapper = mapper;
        this.components = components;
        this.secrets = secrets;
        this.releases = releases;
    }

    /** @param seen the components that may be told of */
    NamesView of(RegisteredComponent component, Predicate<String> seen) {
        return new NamesView(components.all().stream().map(RegisteredComponent::name).filter(seen).toList(),
                components.environmentNames(), components.offers(),
                mapper.artifacts(component.id()).stream().filter(row -> seen.test(row.component()))
                        .map(row -> new ArtifactName(row.component(), row.artifact(), row.version())).toList(),
                secrets.given(component.id()).stream().sorted().toList(),
                mapper.sources(component.id()).stream().filter(seen).flatMap(this::pieces).toList());
    }

    private Stream<PieceName> pieces(String of) {
        return releases.next(of, Releases.NEWEST) instanceof Found.Is(var release)
                ? PipelineText.piecesOf(release.text()).stream()
                        .map(piece -> new PieceName(of, release.version(), piece))
                : Stream.empty();
    }
}
