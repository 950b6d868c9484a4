package dev.paseo.language.draft;

import static org.junit.jupiter.api.Assertions.assertEquals;

import org.junit.jupiter.api.Test;

class LikeAnotherTest {

    @Test
    void theNameIsChangedAndTheOthersAreTold() {
        assertEquals("""
                # Begun as that of daylight-api. It is still named in lines 5, 6.
                paseo: 1
                component: sun-board   # as registered
                stages:
                  compile: {steps: [./build.sh], keep: {app: out/daylight-api.jar}}
                # not daylight-api-old, but daylight-api
                """, LikeAnother.of("""
                paseo: 1
                component: "daylight-api"   # as registered
                stages:
                  compile: {steps: [./build.sh], keep: {app: out/daylight-api.jar}}
                # not daylight-api-old, but daylight-api
                """, "daylight-api", "sun-board"));
    }

    @Test
    void nothingElseIsChangedWhereNothingElseNamesIt() {
        assertEquals("# Begun as that of a.\npaseo: 1\ncomponent: b\n",
                LikeAnother.of("paseo: 1\ncomponent: a\n", "a", "b"));
        assertEquals("no file", LikeAnother.of("no file", "a", "b"));
    }
}
