# The demo's beginning, made by driving the real service: accounts, components, commits, walks. Sourced by script/demo.

word() { head -c 400 /dev/urandom | LC_ALL=C tr -dc 'a-z0-9' | head -c 14; }

# account NAME OPTIONS...: adds it and signs the client in as it.
account() {
    name=$1
    shift
    password=$(word)
    printf '%s' "$password" | as admin account add "$name" --password --address "$name@park.example" "$@" >/dev/null
    printf '%-18s %s\n' "$name" "$password" >>"$demo/accounts"
    printf '%s' "$password" | paseo sign-in "$url" --name "$name" --as "$name" >/dev/null
}

accounts() {
    say "adding accounts"
    paseo sign-in "$url" --name admin --as admin <"$demo/data/admin-password" >/dev/null
    (umask 077 && : >"$demo/accounts")
    printf '%-18s %s' admin "$(cat "$demo/data/admin-password")" >"$demo/accounts"
    echo >>"$demo/accounts"
    account developer --role developer
    account tester --role tester --group testers
    account approver-1 --role approver --group approvers
    account approver-2 --role approver --group approvers
    account auditor --role auditor
    # The works that build elsewhere are theirs, so that it is known who is behind what they publish.
    account release-engineer --role release-engineer --address works@park.example
}

git_as() {
    who=$1
    shift
    git -c user.name="$who" -c user.email="$who@park.example" -c init.defaultBranch=main -c advice.detachedHead=false "$@"
}

# commit COMPONENT MESSAGE [BRANCH]: commits all and pushes it as the developer.
commit() {
    work=$demo/work/$1
    git_as developer -C "$work" add -A
    git_as developer -C "$work" commit -q -m "$2"
    PASEO_PUSHER=developer git_as developer -C "$work" push -q origin "HEAD:${3:-main}" 2>&1 | sed 's/^remote: //; s/ *$//' >&2
}

# component NAME OPTIONS...: a bare repository with a first commit, registered, with its hook.
component() {
    name=$1
    shift
    bare=$demo/repositories/$name.git
    git init -q --bare --initial-branch=main "$bare"
    git_as developer clone -q "$bare" "$demo/work/$name" 2>/dev/null
    cp -R "$root/demo/scenario/$name/." "$demo/work/$name/"
    with_ports "$root/demo/scenario/$name/paseo.yaml" >"$demo/work/$name/paseo.yaml"
    printf 'Kept by the wardens of the park.\n' >"$demo/work/$name/README"
    as release-engineer component register "$name" --repository "file://$bare" --trusted main "$@" >&2
    as release-engineer component hook "$name" >"$bare/hooks/post-receive"
    chmod 700 "$bare/hooks/post-receive"
}

# live COMPONENT VERSION ENVIRONMENT: whether it is.
live() {
    paseo where "$1" --output json | python3 -c "
import json, sys
rows = {row['component']: row for row in json.load(sys.stdin)['rows']}
cells = {cell['environment']: cell for cell in rows['$1']['cells']}
sys.exit(cells['$3'].get('version') != '$2')"
}

# sealed COMPONENT VERSION: whether it is.
sealed() { paseo show "$1" "$2"; }

# ended COMPONENT NUMBER: waits until the run has, however it did.
ended() { paseo watch "$1#$2" >/dev/null || true; }

# archive VERSION: builds the hut planner at the works, which Paseo knows nothing of.
archive() {
    works=$demo/work/works
    mkdir -p "$works/hut-planner"
    cp "$root"/demo/scenario/hut-planner/works/* "$works/hut-planner/"
    echo "$1" >"$works/hut-planner/version.txt"
    tar -czf "$works/hut-planner-$1.tgz" -C "$works/hut-planner" .
}

# promote COMPONENT VERSION: requests it into production; prints the deployment's number.
promote() {
    as release-engineer promote "$1" "$2" --to production --output json | python3 -c 'import json, sys; print(json.load(sys.stdin)["id"])'
}

history() {
    export PASEO_SERVICE=release-engineer
    rm -rf "$demo/work"
    mkdir -p "$demo/work"
    say "bringing in the components"
    component park-pieces
    component sun-model --link "Runbook=https://park.example/runbooks/sun-model"
    component daylight-api --allowed 'season/*' --allowed 'feature/*' --open-source sun-model --open-source park-pieces \
        --link "Runbook=https://park.example/runbooks/daylight-api" --link "Dashboard=https://park.example/dashboards/daylight-api"
    component path-board
    component daylight-check --source park-pieces
    as release-engineer component register hut-planner --pipeline "$root/demo/scenario/hut-planner/paseo.yaml" --trusted main >&2
    for labelled in park-pieces sun-model daylight-api daylight-check; do as release-engineer component labels $labelled --label team=wardens >/dev/null; done
    as release-engineer component labels path-board --label team=works >/dev/null
    as release-engineer component labels hut-planner --label team=works >/dev/null
    (umask 077 && as admin receiver add park-log --address "http://127.0.0.1:$((port + 95))/events" >"$demo/receiver.secret")
    receiver
    with_ports "$root/demo/scenario/environments.yaml" | sed "s|@user@|$(id -un)|; s|@host-key@|$(cut -d' ' -f1,2 "$demo/ssh/host.pub")|; s|@folder@|$demo/hosts/depot|" >"$demo/environments.yaml"
    as admin environment load "$demo/environments.yaml" >/dev/null
    as admin secret grant daylight-api DATA_KEY >/dev/null
    for environment in test staging production trial; do
        word | as admin secret set DATA_KEY --component daylight-api --environment $environment >/dev/null
    done
    as admin secret set DEPOT_KEY --component path-board --environment staging <"$demo/ssh/user" >/dev/null
    say "first commits: built once, then test and staging"
    commit park-pieces "Ask for the times, and hold them against what walkers need"
    await 60 "park-pieces 2.0.1" sealed park-pieces 2.0.1
    commit daylight-check "Ask staging for today's times"
    commit sun-model "Work out sunrise and sunset by the almanac"
    await 120 "sun-model 2.8.1" sealed sun-model 2.8.1
    commit daylight-api "Serve the times of each hut over HTTP"
    commit path-board "Show when to turn back, path by path"
    await 180 "daylight-api 1.4.1 in staging" live daylight-api 1.4.1 staging
    await 120 "path-board 0.9.1 in staging" live path-board 0.9.1 staging
    say "the first ones go into production, approved"
    ticked daylight-api 1.4.1
    approved daylight-api 1.4.1 "Times agree with the printed almanac." >/dev/null
    approved path-board 0.9.1 "The board reads well from the path." >/dev/null
    await 120 "daylight-api 1.4.1 in production" live daylight-api 1.4.1 production
    await 120 "path-board 0.9.1 in production" live path-board 0.9.1 production
    say "a branch that nobody named, a run that fails, and a next version that waits for approval"
    git_as developer -C "$demo/work/daylight-api" checkout -q -b try/seconds
    echo "Seconds, perhaps." >>"$demo/work/daylight-api/README"
    commit daylight-api "Try seconds" try/seconds
    git_as developer -C "$demo/work/daylight-api" checkout -q main
    sed -i 's|return Math.round(length.toSeconds() / 60.0);|return length.toMinutes()+;|' "$demo/work/daylight-api/src/park/daylight/Times.java"
    commit daylight-api "Round times to turn back down"
    ended daylight-api 2
    sed -i 's|return length.toMinutes()+;|return length.toMinutes(); // down: who turns back a minute early waits at the gate, who turns back late walks in the dark, say the wardens, and so does the rescue|' \
        "$demo/work/daylight-api/src/park/daylight/Times.java"
    commit daylight-api "Round times to turn back down, and compile"
    await 180 "daylight-api 1.4.3 in staging" live daylight-api 1.4.3 staging
    ticked daylight-api 1.4.3
    say "a season's branch fails, is mended and resumed; a run that is cancelled"
    git_as developer -C "$demo/work/daylight-api" checkout -q -b season/spring
    echo "Spring tables: delivered by the wardens." >>"$demo/work/daylight-api/README"
    commit daylight-api "Compare times with the spring tables" season/spring
    ended daylight-api 4
    mkdir -p "$demo/agents/builder/host/tables"
    seq -f '2026-03-%02g,18:40' 1 31 >"$demo/agents/builder/host/tables/spring.csv"
    paseo resume daylight-api#4 >/dev/null
    ended daylight-api 4
    git_as developer -C "$demo/work/daylight-api" checkout -q main
    paseo start daylight-api --answer verbose=true --up-to test >/dev/null
    paseo cancel daylight-api#5 >/dev/null
    ended daylight-api 5
    say "the hut planner arrives: published by hand, and seen in the registry"
    archive 2.3.0
    paseo publish hut-planner 2.3.0 "$demo/work/works/hut-planner-2.3.0.tgz" --author works@park.example >/dev/null
    paseo component observe hut-planner --registry "$registry" --name park/hut-planner --pattern "2.*" --existing >/dev/null
    await 60 "hut-planner 2.3.0 in staging" live hut-planner 2.3.0 staging
    archive 2.4.0
    python3 "$root/demo/push-to-registry.py" "$registry" park/hut-planner 2.4.0 "$demo/work/works/hut-planner-2.4.0.tgz"
    await 90 "hut-planner 2.4.0 in staging" live hut-planner 2.4.0 staging
    say "a change of the model that fails, and one that goes down the chain"
    model=$demo/work/sun-model/src/park/sun/Sun.java
    sed -i 's/OBLIQUITY = 23.44;/OBLIQUITY = 32.44;/' "$model"
    commit sun-model "Correct the obliquity"
    ended sun-model 2
    sed -i 's/OBLIQUITY = 32.44;/OBLIQUITY = 23.436;/' "$model"
    commit sun-model "Correct the obliquity, digit by digit"
    await 180 "daylight-api 1.4.5 in staging" live daylight-api 1.4.5 staging
    await 60 "daylight-check 1.0.3" sealed daylight-check 1.0.3
    ticked daylight-api 1.4.5
    say "a new version of what two components share, tried against both before it is released"
    git_as developer -C "$demo/work/park-pieces" checkout -q -b turning-times
    sed -i 's|versions: "2.0|versions: "2.1|; s|default: 30s|default: 20s|; s|{name: sunset, command: grep -q sunset today.json|{name: sunset and turning times, command: grep -q sunset today.json \&\& grep -q turn_back today.json|' \
        "$demo/work/park-pieces/paseo.yaml"
    commit park-pieces "Hold the times to turn back too, and be answered sooner" turning-times
    paseo piece try park-pieces --branch turning-times >"$demo/tried"
    git_as developer -C "$demo/work/park-pieces" checkout -q main
    git_as developer -C "$demo/work/park-pieces" merge -q turning-times
    PASEO_PUSHER=developer git_as developer -C "$demo/work/park-pieces" push -q origin HEAD:main 2>/dev/null
    await 60 "park-pieces 2.1.1" sealed park-pieces 2.1.1
    deployments
    unset PASEO_SERVICE
    paseo sign-in "$url" --name release-engineer --as release-engineer >/dev/null <<PASSWORD
$(sed -n 's/^release-engineer *//p' "$demo/accounts")
PASSWORD
}

# approved COMPONENT VERSION COMMENT: into production; prints the deployment's number.
approved() {
    number=$(promote "$1" "$2")
    as approver-1 approve deployment "$number" --comment "$3" >/dev/null
    as approver-2 approve deployment "$number" --comment "Seconded." >/dev/null
    echo "$number"
}

# passage COMPONENT VERSION: the number of its passage through staging.
passage() {
    paseo show "$1" "$2" --output json | python3 -c 'import json, sys; print(next(stop["passage"] for stop in json.load(sys.stdin)["walk"] if stop["environment"] == "staging"))'
}

# ticked COMPONENT VERSION: the tester ticks every item of its list in staging.
ticked() {
    number=$(passage "$1" "$2")
    as tester tick passage "$number" "Board shows the day's turning time" --note "16:29, as in the printed almanac" >/dev/null
    as tester tick passage "$number" "Old links still work" >/dev/null
}

# into DEPLOYMENT STATUS: whether it is.
into() { paseo show deployment "$1" --output json | python3 -c 'import json, sys; sys.exit(json.load(sys.stdin)["deployment"]["status"] != sys.argv[1])' "$2"; }

deployments() {
    say "a blue-green switch, a canary that is stopped by its check, a rolling deployment that is undone at the first host"
    change_notice
    await 120 "path-board 0.9.2 in staging" live path-board 0.9.2 staging
    approved path-board 0.9.2 "The new notice is right: I walked there today." >/dev/null
    await 90 "path-board 0.9.2 in production" live path-board 0.9.2 production
    set_undone
    approved hut-planner 2.4.0 "The works tested it." >/dev/null
    await 90 "hut-planner 2.4.0 in production" live hut-planner 2.4.0 production
    # It serves well at first, and wears out.
    printf 'sleep 8\necho "{\\"huts\\": 0}" >"$1/huts.json"\nsleep 100000\n' >"$demo/work/works/hut-planner/wear.sh"
    archive 2.5.0
    paseo publish hut-planner 2.5.0 "$demo/work/works/hut-planner-2.5.0.tgz" --author works@park.example >/dev/null
    await 90 "hut-planner 2.5.0 in staging" live hut-planner 2.5.0 staging
    worn=$(approved hut-planner 2.5.0 "The works say it is faster.")
    await 120 "the canary's end" into "$worn" undone
    for host in test-1 staging-1 staging-2; do echo "north-hut,+4" >"$demo/hosts/$host/horizon.csv"; done
    sed -i '/^mkdir -p/i [ "$PASEO_ENVIRONMENT" != production ] || [ -f "$PASEO_HOST_FOLDER/horizon.csv" ] || { echo "horizon.csv is missing on $PASEO_HOST"; exit 1; }' \
        "$demo/work/daylight-api/deploy/install.sh"
    sed -i "s/horizon@3.1/horizon@3.2/; s/\"version\": \"3.1\"/\"version\": \"3.2\"/" "$demo/work/daylight-api/parts.cdx.json"
    commit daylight-api "Read each hut's horizon from the host"
    await 180 "daylight-api 1.4.6 in staging" live daylight-api 1.4.6 staging
    ticked daylight-api 1.4.6
    missing=$(approved daylight-api 1.4.6 "Horizons look right in staging.")
    await 90 "the undone deployment" into "$missing" undone
    git_as developer -C "$demo/work/daylight-api" revert --no-edit HEAD >/dev/null
    PASEO_PUSHER=developer git_as developer -C "$demo/work/daylight-api" push -q origin HEAD:main 2>/dev/null
    await 180 "daylight-api 1.4.7 in staging" live daylight-api 1.4.7 staging
    ticked daylight-api 1.4.7
    promote daylight-api 1.4.7 >"$demo/waiting"
    say "a branch with a preview of its own, and what holds and closes"
    git_as developer -C "$demo/work/daylight-api" checkout -q -b feature/moon-phases
    echo "Phases of the moon: shown beside sunset." >>"$demo/work/daylight-api/README"
    commit daylight-api "Show the phases of the moon" feature/moon-phases
    git_as developer -C "$demo/work/daylight-api" checkout -q main
    await 180 "the preview" previewed
    as release-engineer hold path-board --in staging --reason "the lettering is being judged on the path until Friday" >/dev/null
    say "a closed period, an approval of two, a checklist that is half ticked"
    hill_race >"$demo/environments-closed.yaml"
    as admin environment load "$demo/environments-closed.yaml" >/dev/null
    as approver-1 approve deployment "$(cat "$demo/waiting")" --comment "Compared both boards; times agree." >/dev/null
    echo "Horizon: level, as in the almanac." >>"$demo/work/daylight-api/README"
    commit daylight-api "Say which horizon times refer to"
    await 180 "daylight-api 1.4.8 in staging" live daylight-api 1.4.8 staging
    as tester tick passage "$(passage daylight-api 1.4.8)" "Board shows the day's turning time" --note "16:29, as in the printed almanac" >/dev/null
}

# Two that belong together go into production as one; the second fails there, so both come back.
set_undone() {
    install=$demo/work/path-board/deploy/install.sh
    sed -i '/^mkdir -p/i [ "$PASEO_ENVIRONMENT" != production ] || { echo "large.ttf is missing on $PASEO_HOST: the big board would be blank"; exit 1; }' "$install"
    commit path-board "Set the big board in a larger face"
    await 120 "path-board 0.9.3 in staging" live path-board 0.9.3 staging
    as release-engineer set make evening daylight-api=1.4.5 path-board=0.9.3 >/dev/null
    first=$(as release-engineer set promote evening --to production --comment "The board shows the new times" --output json |
        python3 -c 'import json, sys; print(json.load(sys.stdin)["parts"][0]["deployment"])')
    for approver in approver-1 approver-2; do as $approver approve deployment "$first" --comment "Looked at both in staging." >/dev/null; done
    await 180 "the set's end" set_is evening undone
    git_as developer -C "$demo/work/path-board" revert --no-edit HEAD >/dev/null
    PASEO_PUSHER=developer git_as developer -C "$demo/work/path-board" push -q origin HEAD:main 2>/dev/null
    await 120 "path-board 0.9.4 in staging" live path-board 0.9.4 staging
}

# set_is NAME STATUS: whether its newest promotion is.
set_is() { paseo set show "$1" --output json | python3 -c 'import json, sys; sys.exit(json.load(sys.stdin)["promotions"][0]["status"] != sys.argv[1])' "$2"; }

# The environments, with production closed for the next six hours.
hill_race() {
    python3 - "$demo/environments.yaml" <<'PYTHON'
import datetime, sys
now = datetime.datetime.now(datetime.timezone.utc).replace(minute=0, second=0, microsecond=0)
stamp = lambda time: time.strftime("%Y%m%dT%H%M%SZ")
calendar = ["BEGIN:VCALENDAR", "VERSION:2.0", "PRODID:-//park//calendar//EN", "BEGIN:VEVENT", "UID:hill-race", "DTSTAMP:" + stamp(now), "DTSTART:" + stamp(now),
            "DTEND:" + stamp(now + datetime.timedelta(hours=6)), "SUMMARY:Hill race", "END:VEVENT", "BEGIN:VEVENT", "UID:year-end", "DTSTAMP:" + stamp(now),
            "DTSTART;VALUE=DATE:20261224", "DTEND;VALUE=DATE:20270102", "SUMMARY:Year's end", "END:VEVENT", "END:VCALENDAR"]
text = open(sys.argv[1]).read()
closed = "    closed: |\n" + "".join("      " + line + "\n" for line in calendar)
print(text.replace("  production:\n", "  production:\n" + closed, 1), end="")
PYTHON
}

# Whether the preview of the feature branch is live.
previewed() { paseo preview list --output json | python3 -c 'import json, sys; sys.exit(not any(each.get("status") == "live" for each in json.load(sys.stdin)))'; }

# A file with this demo's ports.
with_ports() {
    python3 - "$1" "$port" <<'PYTHON'
import re, sys
print(re.sub(r"@(\d+)@", lambda found: str(int(sys.argv[2]) + int(found[1])), open(sys.argv[1]).read()), end="")
PYTHON
}

# A commit whose change can be seen: the next notice of the day.
change_notice() {
    work=$demo/work/path-board
    [ -d "$work" ] || die "the demo is not there yet; run script/demo"
    case $(sed -n 's/^notice=//p' "$work/notice.sh") in
    *spikes*) next="The bridge at the ford is closed until noon." ;;
    *ford*) next="Storms after four: turn back an hour early." ;;
    *) next="Snow above 2000 m: carry spikes." ;;
    esac
    printf '# The notice of the day; sourced by build.sh.\nnotice="%s"\n' "$next" >"$work/notice.sh"
    commit path-board "Put up the notice: $next"
}

tell() {
    cat <<TEXT

The demo is ready.
  console   $url
  mails     http://127.0.0.1:$((port + 98))
  accounts  (name and password)
$(sed 's/^/            /' "$demo/accounts")

Try next:
  script/paseo where
  script/demo --change                           a commit to path-board; watch it walk: script/paseo where path-board
  script/paseo why daylight-check#3              the chain of causes, back to the push
  script/paseo why sun-model#3 --forward         everything that it led to
  script/paseo why daylight-api                  what happened lately, and why others did not start
  script/paseo show daylight-api#3 --times       where the time of a run went
  script/paseo approve deployment $(cat "$demo/waiting") --service approver-2 --comment "Compared with staging; times agree."
  script/paseo clock forward 6h --service admin  the hill race is over: what waited goes on by itself
  script/paseo tick passage $(passage daylight-api 1.4.8) "Old links still work" --service tester

Stop it with script/demo --stop.
TEXT
}
