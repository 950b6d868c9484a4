package dev.paseo.service.web;

import io.swagger.v3.oas.annotations.Hidden;
import java.time.Duration;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.io.ClassPathResource;
import org.springframework.core.io.Resource;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.servlet.config.annotation.ResourceHandlerRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/** Serves the console: its hashed files for a year, its page for every address that is one of its own. */
@Hidden
@Controller
class ConsoleFiles {

    @Configuration
    static class Assets implements WebMvcConfigurer {
        @Override
        public void addResourceHandlers(ResourceHandlerRegistry registry) {
            registry.addResourceHandler("/assets/**").addResourceLocations("classpath:/console/assets/")
                    .setCacheControl(CacheControl.maxAge(Duration.ofDays(365)).cachePublic().immutable());
            registry.addResourceHandler("/favicon.svg").addResourceLocations("classpath:/console/");
        }
    }

    // The console's own list is router.tsx; its tests hold the two against each other.
    @GetMapping({"/", "/sign-in", "/waiting", "/components", "/components/{name}", "/components/{name}/pipeline",
            "/components/{name}/compare", "/components/{name}/pieces", "/components/{name}/address", "/bring-in",
            "/chain", "/runs", "/versions", "/runs/{component}/{number}", "/versions/{component}/{number}",
            "/deployments", "/events", "/audit", "/history", "/pace", "/pace/shifts", "/packages", "/origins",
            "/origins/{sha256}",
            "/deployments/{id}", "/places/{component}/{environment}", "/passages/{id}", "/environments/{name}",
            "/environments-file", "/sets", "/sets/{name}", "/settings", "/settings/{part}", "/settings/{part}/{name}",
            "/link/{token}", "/problems/{name}", "/docs", "/docs/{room}/{name}", "/api"})
    ResponseEntity<Resource> page() {
        return ResponseEntity.ok().cacheControl(CacheControl.noCache()).contentType(MediaType.TEXT_HTML)
                .body(new ClassPathResource("/console/index.html"));
    }
}
