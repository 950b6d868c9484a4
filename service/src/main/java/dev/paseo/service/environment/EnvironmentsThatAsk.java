package dev.paseo.service.environment;

import dev.paseo.core.secret.ValueReach;
import dev.paseo.service.loosening.Agreements;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Which environments ask a second person before what reaches them is loosened. */
@Component
public class EnvironmentsThatAsk implements Agreements.Askers {

    private final Environments environments;

    EnvironmentsThatAsk(Environments environments) {
        this.environments = environments;
    }

    @Override
    public Map<String, List<String>> ofComponent(String component) {
        return within(new ValueReach(Optional.of(component), Optional.empty(), Optional.empty()));
    }

    /** Those that a value there would reach. */
    public Map<String, List<String>> within(ValueReach reach) {
        Map<String, List<String>> asked = new LinkedHashMap<>();
        environments.all().stream().filter(known -> known.rules().toLoosen().isPresent()
                && reach.environment().filter(name -> !name.equals(known.name())).isEmpty()
                && reach.component().filter(name -> environments.find(name, known.name()).isEmpty()).isEmpty())
                .forEach(known -> asked.put(known.name(), known.rules().toLoosen().orElseThrow()));
        return asked;
    }
}
