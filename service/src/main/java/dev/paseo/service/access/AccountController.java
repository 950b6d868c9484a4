package dev.paseo.service.access;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.access.AccountViews.AccountView;
import dev.paseo.service.access.AccountViews.GroupView;
import dev.paseo.service.permission.Permission;
import java.util.List;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Accounts and groups: for whoever manages them, and to look at for whoever verifies the audit trail. */
@RestController
@RequestMapping("/api/v1")
class AccountController {

    private final AccountViews views;
    private final AccountChanges changes;
    private final GroupChanges groupChanges;

    AccountController(AccountViews views, AccountChanges changes, GroupChanges groupChanges) {
        this.views = views;
        this.changes = changes;
        this.groupChanges = groupChanges;
    }

    /** @param code with which its owner sets a password; good for a day, shown this once */
    record CodeView(Optional<String> code) {}

    record ReasonBody(String reason) {}

    record RolesBody(List<String> roles) {}

    private static void manages(Person person, String tried) {
        Permission.require(person, Action.MANAGE_ACCOUNTS, tried);
    }

    private static void looks(Person person) {
        if (!person.may(Action.VERIFY_AUDIT, Optional.empty(), Optional.empty())) {
            manages(person, "see accounts");
        }
    }

    /** Lists all accounts, with roles, groups and when each signed in last. */
    @GetMapping("/accounts")
    List<AccountView> all(@AuthenticationPrincipal Person person) {
        looks(person);
        return views.all();
    }

    /** Shows one account: its roles, groups, addresses and last sign-in. */
    @GetMapping("/accounts/{name}")
    AccountView one(@AuthenticationPrincipal Person person, @PathVariable String name) {
        if (!person.name().equals(name) || person.scope().isPresent()) {
            looks(person);
        }
        return views.one(name);
    }

    /** Adds an account. The answer has a one-time code for its password where none was given. */
    @PostMapping("/accounts")
    @ResponseStatus(HttpStatus.CREATED)
    CodeView add(@AuthenticationPrincipal Person person, @RequestBody AccountChanges.NewAccount account) {
        manages(person, "add accounts");
        return new CodeView(changes.add(account, person.name()));
    }

    /** Changes an account's roles, groups and addresses; each list that is given replaces the one before. */
    @PutMapping("/accounts/{name}")
    AccountView change(@AuthenticationPrincipal Person person, @PathVariable String name,
            @RequestBody AccountChanges.AccountChange change) {
        manages(person, "change accounts");
        return changes.change(name, change, person.name());
    }

    /** Disables an account at once: sessions and open pages end, tokens are revoked. What it approved stays. */
    @PutMapping("/accounts/{name}/disabled")
    AccountView disable(@AuthenticationPrincipal Person person, @PathVariable String name,
            @RequestBody ReasonBody request) {
        manages(person, "disable accounts");
        return changes.disable(name, request.reason().strip(), person.name());
    }

    /** Enables a disabled account again; its roles are as they were. */
    @DeleteMapping("/accounts/{name}/disabled")
    AccountView enable(@AuthenticationPrincipal Person person, @PathVariable String name) {
        manages(person, "enable accounts");
        return changes.enable(name, person.name());
    }

    /** Makes a one-time code, good for a day, with which the account's owner sets a new password. */
    @PostMapping("/accounts/{name}/code")
    @ResponseStatus(HttpStatus.CREATED)
    CodeView reset(@AuthenticationPrincipal Person person, @PathVariable String name) {
        manages(person, "give codes for new passwords");
        return new CodeView(Optional.of(changes.reset(name, person.name())));
    }

    /** Lists all groups, with their members and roles. */
    @GetMapping("/groups")
    List<GroupView> groups(@AuthenticationPrincipal Person person) {
        looks(person);
        return views.groups();
    }

    /** Sets the roles that a group gives to its members; they replace those before. */
    @PutMapping("/groups/{group}")
    GroupView group(@AuthenticationPrincipal Person person, @PathVariable String group,
            @RequestBody RolesBody request) {
        manages(person, "change groups");
        return groupChanges.roles(group, request.roles(), person.name());
    }

    /** Adds an account to a group; the group is made where it is new. */
    @PutMapping("/groups/{group}/members/{name}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void join(@AuthenticationPrincipal Person person, @PathVariable String group, @PathVariable String name) {
        manages(person, "put people into groups");
        groupChanges.join(group, name, person.name());
    }

    /** Takes an account out of a group. */
    @DeleteMapping("/groups/{group}/members/{name}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void leave(@AuthenticationPrincipal Person person, @PathVariable String group, @PathVariable String name) {
        manages(person, "take people out of groups");
        groupChanges.leave(group, name, person.name());
    }
}
