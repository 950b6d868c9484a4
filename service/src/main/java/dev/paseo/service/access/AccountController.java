package dev.paseo.service.access;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.permission.Permission;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping("/api/v1")
class AccountController {

    private final Accounts accounts;

    AccountController(Accounts accounts) {
        this.accounts = accounts;
    }

    @PostMapping("/accounts")
    @ResponseStatus(HttpStatus.CREATED)
    void add(@AuthenticationPrincipal Person person, @RequestBody Accounts.NewAccount account) {
        Permission.require(person, Action.MANAGE_ACCOUNTS, "add accounts");
        accounts.add(account, person.name());
    }

    @PutMapping("/groups/{group}/members/{name}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void join(@AuthenticationPrincipal Person person, @PathVariable String group, @PathVariable String name) {
        Permission.require(person, Action.MANAGE_ACCOUNTS, "put people into groups");
        accounts.join(group, name, person.name());
    }

    @DeleteMapping("/groups/{group}/members/{name}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void leave(@AuthenticationPrincipal Person person, @PathVariable String group, @PathVariable String name) {
        Permission.require(person, Action.MANAGE_ACCOUNTS, "take people out of groups");
        accounts.leave(group, name, person.name());
    }
}
