package dev.paseo.service.set;

import dev.paseo.core.deployment.SetCourse;
import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.component.Components;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.version.Versions;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Sets: versions of several components that are promoted as one. */
@RestController
@RequestMapping("/api/v1/sets")
class SetController {

    record SetMemberView(String component, String version) {}

    /** {@code members} in the order in which they are deployed. */
    record NewSetRequest(String name, List<SetMemberView> members) {}

    record SetPromotionRequest(String environment, Optional<String> comment) {}

    /** A member's deployment, and why it ended as it did; absent where it was not requested yet. */
    record PartView(String component, String version, Optional<Long> deployment, Optional<DeploymentStatus> status,
            Optional<String> reason) {}

    record SetPromotionView(long id, String environment, SetCourse.Status status, String requestedBy, String comment,
            Instant requestedAt, Optional<Instant> endedAt, List<PartView> parts) {}

    record SetView(String name, Optional<String> by, Instant at, List<SetMemberView> members,
            List<SetPromotionView> promotions) {}

    private final Sets sets;
    private final SetPromotions setPromotions;
    private final Components components;
    private final Versions versions;
    private final Environments environments;

    SetController(Sets sets, SetPromotions setPromotions, Components components, Versions versions,
            Environments environments) {
        this.sets = sets;
        this.setPromotions = setPromotions;
        this.components = components;
        this.versions = versions;
        this.environments = environments;
    }

    /** Lists the newest 200 sets. */
    @GetMapping
    List<SetView> all(@AuthenticationPrincipal Person person) {
        Permission.require(person, Action.LOOK);
        return sets.all().stream().map(this::view).toList();
    }

    /** A set of versions, and its promotions. */
    @GetMapping("/{name}")
    SetView set(@AuthenticationPrincipal Person person, @PathVariable String name) {
        Permission.require(person, Action.LOOK);
        return view(sets.named(name));
    }

    private SetView view(SetMapper.SetRow row) {
        List<Versions.Version> members = sets.members(row.id());
        return new SetView(row.name(), Optional.ofNullable(row.by()), row.at(),
                members.stream().map(each -> new SetMemberView(each.component(), each.number())).toList(),
                sets.promotions(row.id()).stream().map(promotion -> view(promotion, members)).toList());
    }

    private SetPromotionView view(SetMapper.PromotionRow row, List<Versions.Version> members) {
        List<SetMapper.MemberRow> deployments = sets.deployments(row.id());
        return new SetPromotionView(row.id(), row.environment(), row.status(), row.by(), row.comment(),
                row.requestedAt(), Optional.ofNullable(row.endedAt()), members.stream().map(member -> {
                    Optional<SetMapper.MemberRow> own = deployments.stream()
                            .filter(each -> each.versionId() == member.id()).findFirst();
                    return new PartView(member.component(), member.number(), own.map(SetMapper.MemberRow::deployment),
                            own.map(SetMapper.MemberRow::status), own.map(SetMapper.MemberRow::reason));
                }).toList());
    }

    /** Makes a set of versions, which is promoted as one. */
    @PostMapping
    @ResponseStatus(HttpStatus.CREATED)
    SetView create(@AuthenticationPrincipal Person person, @RequestBody NewSetRequest request) {
        request.members().forEach(member -> Permission.require(person, Action.PROMOTE,
                "make a set with " + member.component(), Optional.of(member.component()), Optional.empty()));
        sets.create(request.name(), request.members().stream().map(member -> versions
                .numbered(components.named(member.component()).id(), member.component(), member.version())).toList(),
                person);
        return view(sets.named(request.name()));
    }

    /** Promotes a set as one; the first member's deployment stands at the gate for all. */
    @PostMapping("/{name}/promotions")
    @ResponseStatus(HttpStatus.CREATED)
    SetPromotionView promote(@AuthenticationPrincipal Person person, @PathVariable String name,
            @RequestBody SetPromotionRequest request) {
        SetMapper.SetRow set = sets.named(name);
        List<Versions.Version> members = sets.members(set.id());
        members.forEach(member -> Permission.require(person, Action.PROMOTE,
                "promote " + member.component() + " into " + request.environment(), Optional.of(member.component()),
                Optional.of(request.environment())));
        setPromotions.promote(set, environments.named(request.environment()), person,
                request.comment().orElse("").strip());
        return view(sets.promotions(set.id()).getFirst(), members);
    }
}
