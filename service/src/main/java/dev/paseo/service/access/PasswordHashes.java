package dev.paseo.service.access;

import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.security.crypto.argon2.Argon2PasswordEncoder;
import org.springframework.security.crypto.password.PasswordEncoder;

/** How passwords are hashed: with Argon2id (RFC 9106), 16 MiB and two passes each. */
@Configuration(proxyBeanMethods = false)
class PasswordHashes {

    @Bean
    PasswordEncoder passwordEncoder() {
        return Argon2PasswordEncoder.defaultsForSpringSecurity_v5_8();
    }
}
