package dev.paseo.service.preview;

import dev.paseo.language.environment.EnvironmentsFile.Template;
import dev.paseo.service.agent.Agents;
import dev.paseo.service.database.Json;
import dev.paseo.service.preview.PreviewMapper.TemplateRow;
import dev.paseo.service.problem.Refusal;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** What environments files say of previews, and whose agent deploys them. */
@Component
class PreviewTemplates {

    private final PreviewMapper mapper;
    private final Agents agents;
    private final Json json;

    PreviewTemplates(PreviewMapper mapper, Agents agents, Json json) {
        this.mapper = mapper;
        this.agents = agents;
        this.json = json;
    }

    Template read(TemplateRow row) {
        return json.read(row.body(), Template.class);
    }

    Optional<TemplateRow> of(String component) {
        return mapper.templates().stream().filter(row -> read(row).component().equals(component)).findFirst();
    }

    /** @throws Refusal a conflict where the host has no agent, or it takes no previews */
    String agent(Template template) {
        String agent = mapper.agent(template.host())
                .orElseThrow(() -> Refusal.conflict("The host " + template.host() + " of previews has no agent"));
        agents.refusesPreviews(agent).ifPresent(why -> {
            throw Refusal.conflict("The agent of the host " + template.host() + " takes no previews: " + why);
        });
        return agent;
    }
}
