package dev.paseo.language.condition;

import com.google.common.collect.ImmutableCollection;
import com.google.common.collect.ImmutableList;
import com.google.common.collect.ImmutableSet;
import dev.cel.common.types.CelType;
import dev.cel.common.types.CelTypeProvider;
import dev.cel.common.types.StructType;
import dev.cel.common.types.StructTypeReference;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;

/** Groups of facts, such as {@code tests}, as types with fields, so that a field that is not there is found at once. */
final class GroupTypes implements CelTypeProvider {

    private final Map<String, StructType> types = new LinkedHashMap<>();

    GroupTypes(Map<String, Map<String, CelType>> groups) {
        groups.forEach((group, fields) -> types.put("paseo." + group,
                StructType.create("paseo." + group, ImmutableSet.copyOf(fields.keySet()),
                        name -> Optional.ofNullable(fields.get(name)))));
    }

    /** A group's type, to stand as a field of another group. */
    static StructTypeReference named(String group) {
        return StructTypeReference.create("paseo." + group);
    }

    StructType of(String group) {
        return types.get("paseo." + group);
    }

    @Override
    public ImmutableCollection<CelType> types() {
        return ImmutableList.copyOf(types.values());
    }

    @Override
    public Optional<CelType> findType(String typeName) {
        return Optional.ofNullable(types.get(typeName));
    }
}
