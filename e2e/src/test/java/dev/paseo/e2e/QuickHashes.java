package dev.paseo.e2e;

import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.context.annotation.Primary;
import org.springframework.security.crypto.argon2.Argon2PasswordEncoder;
import org.springframework.security.crypto.password.PasswordEncoder;

/**
 * The service's way of hashing passwords, but with little memory: a park signs a dozen people in, and strong hashes
 * took nearly half of the time of its start. A service that is started as a process hashes as it always does.
 */
@Configuration(proxyBeanMethods = false)
class QuickHashes {

    @Bean
    @Primary
    PasswordEncoder quickPasswordEncoder() {
        return new Argon2PasswordEncoder(16, 32, 1, 64, 1);
    }
}
