# The demo's beginning, made by driving the real service: accounts, components, commits, walks. Sourced by script/demo.

word() { head -c 400 /dev/urandom | LC_ALL=C tr -dc 'a-z0-9' | head -c 14; }

# account NAME OPTIONS...: adds it and signs the client in as it.
account() {
    name=$1
    shift
    password=$(word)
    printf '%s' "$password" | as admin account add "$name" --address "$name@harbour.example" "$@" >/dev/null
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
    account release-engineer --role release-engineer
}

git_as() {
    who=$1
    shift
    git -c user.name="$who" -c user.email="$who@harbour.example" -c init.defaultBranch=main -c advice.detachedHead=false "$@"
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
    printf 'Kept by the harbour authority.\n' >"$demo/work/$name/README"
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

# archive VERSION: builds the berth planner at the yard, which Paseo knows nothing of.
archive() {
    yard=$demo/work/yard
    mkdir -p "$yard/berth-planner"
    cp "$root"/demo/scenario/berth-planner/yard/* "$yard/berth-planner/"
    echo "$1" >"$yard/berth-planner/version.txt"
    tar -czf "$yard/berth-planner-$1.tgz" -C "$yard/berth-planner" .
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
    component tide-model --link "Runbook=https://harbour.example/runbooks/tide-model"
    component tide-api --allowed 'season/*' --allowed 'feature/*' --secret DATA_KEY --open-source tide-model \
        --link "Runbook=https://harbour.example/runbooks/tide-api" --link "Dashboard=https://harbour.example/dashboards/tide-api"
    component quay-board
    component tide-check
    as release-engineer component register berth-planner --pipeline "$root/demo/scenario/berth-planner/paseo.yaml" --trusted main >&2
    for labelled in tide-model tide-api tide-check; do as release-engineer component labels $labelled --label team=harbour-office >/dev/null; done
    as release-engineer component labels quay-board --label team=quays >/dev/null
    as release-engineer component labels berth-planner --label team=yard >/dev/null
    (umask 077 && as admin receiver add harbour-log --address "http://127.0.0.1:$((port + 95))/events" >"$demo/receiver.secret")
    receiver
    with_ports "$root/demo/scenario/environments.yaml" | sed "s|@user@|$(id -un)|; s|@host-key@|$(cut -d' ' -f1,2 "$demo/ssh/host.pub")|; s|@folder@|$demo/hosts/slipway|" >"$demo/environments.yaml"
    as admin environment load "$demo/environments.yaml" >/dev/null
    for environment in test staging production trial; do
        word | as admin secret set DATA_KEY --component tide-api --environment $environment >/dev/null
    done
    as admin secret set SLIPWAY_KEY --component quay-board --environment staging <"$demo/ssh/user" >/dev/null
    say "first commits: built once, then test and staging"
    commit tide-check "Ask staging for today's tides"
    commit tide-model "Predict tides from harmonic constituents"
    await 120 "tide-model 2.8.1" sealed tide-model 2.8.1
    commit tide-api "Serve tide predictions over HTTP"
    commit quay-board "Show the next high and low water"
    await 180 "tide-api 1.4.1 in staging" live tide-api 1.4.1 staging
    await 120 "quay-board 0.9.1 in staging" live quay-board 0.9.1 staging
    say "the first ones go into production, approved"
    ticked tide-api 1.4.1
    approved tide-api 1.4.1 "Heights agree with the printed tables." >/dev/null
    approved quay-board 0.9.1 "The board reads well from the quay." >/dev/null
    await 120 "tide-api 1.4.1 in production" live tide-api 1.4.1 production
    await 120 "quay-board 0.9.1 in production" live quay-board 0.9.1 production
    say "a branch that nobody named, a run that fails, and a next version that waits for approval"
    git_as developer -C "$demo/work/tide-api" checkout -q -b try/metres
    echo "Metres, perhaps." >>"$demo/work/tide-api/README"
    commit tide-api "Try metres" try/metres
    git_as developer -C "$demo/work/tide-api" checkout -q main
    sed -i 's/Math.round(height)/Math.round(height)+/' "$demo/work/tide-api/src/harbour/tide/Predictions.java"
    commit tide-api "Round heights up"
    ended tide-api 2
    sed -i 's|return Math.round(height)+;|return (long) Math.ceil(height); // up: a keel that touches ground is worse than one that waits for water, says the harbour office, and so do the pilots|' \
        "$demo/work/tide-api/src/harbour/tide/Predictions.java"
    commit tide-api "Round heights up, and compile"
    await 180 "tide-api 1.4.3 in staging" live tide-api 1.4.3 staging
    ticked tide-api 1.4.3
    say "a season's branch fails, is mended and resumed; a run that is cancelled"
    git_as developer -C "$demo/work/tide-api" checkout -q -b season/spring
    echo "Spring tables: delivered by the harbour office." >>"$demo/work/tide-api/README"
    commit tide-api "Hold predictions against the spring tables" season/spring
    ended tide-api 4
    mkdir -p "$demo/agents/builder/host/tables"
    seq -f '2026-03-%02g,1973' 1 31 >"$demo/agents/builder/host/tables/spring.csv"
    paseo resume tide-api#4 >/dev/null
    ended tide-api 4
    git_as developer -C "$demo/work/tide-api" checkout -q main
    paseo start tide-api --param verbose=true --up-to test >/dev/null
    paseo cancel tide-api#5 >/dev/null
    ended tide-api 5
    say "the berth planner arrives: published by hand, and seen in the registry"
    archive 2.3.0
    paseo publish berth-planner 2.3.0 "$demo/work/yard/berth-planner-2.3.0.tgz" --author yard@harbour.example >/dev/null
    paseo component watch berth-planner --registry "$registry" --name harbour/berth-planner --pattern "2.*" --existing >/dev/null
    await 60 "berth-planner 2.3.0 in staging" live berth-planner 2.3.0 staging
    archive 2.4.0
    python3 "$root/demo/push-to-registry.py" "$registry" harbour/berth-planner 2.4.0 "$demo/work/yard/berth-planner-2.4.0.tgz"
    await 90 "berth-planner 2.4.0 in staging" live berth-planner 2.4.0 staging
    say "a change of the model that fails, and one that goes down the chain"
    model=$demo/work/tide-model/src/harbour/tide/model/Tide.java
    sed -i 's/new Constituent("O1", 60,/new Constituent("O1", 6000,/' "$model"
    commit tide-model "Correct the amplitude of O1"
    ended tide-model 2
    sed -i 's/new Constituent("O1", 6000,/new Constituent("O1", 62,/' "$model"
    commit tide-model "Correct the amplitude of O1, in millimetres"
    await 180 "tide-api 1.4.5 in staging" live tide-api 1.4.5 staging
    await 60 "tide-check 1.0.3" sealed tide-check 1.0.3
    ticked tide-api 1.4.5
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
    as tester tick passage "$number" "Board shows today's high water" --note "06:12, as in the printed tables" >/dev/null
    as tester tick passage "$number" "Old links still work" >/dev/null
}

# into DEPLOYMENT STATUS: whether it is.
into() { paseo show deployment "$1" --output json | python3 -c 'import json, sys; sys.exit(json.load(sys.stdin)["deployment"]["status"] != sys.argv[1])' "$2"; }

deployments() {
    say "a blue-green switch, a canary that is stopped by its check, a rolling deployment that is undone at the first host"
    change_theme
    await 120 "quay-board 0.9.2 in staging" live quay-board 0.9.2 staging
    approved quay-board 0.9.2 "The new colours read well in the evening." >/dev/null
    await 90 "quay-board 0.9.2 in production" live quay-board 0.9.2 production
    set_undone
    approved berth-planner 2.4.0 "The yard tested it." >/dev/null
    await 90 "berth-planner 2.4.0 in production" live berth-planner 2.4.0 production
    # It serves well at first, and wears out.
    printf 'sleep 8\necho "{\\"berths\\": 0}" >"$1/berths.json"\nsleep 100000\n' >"$demo/work/yard/berth-planner/wear.sh"
    archive 2.5.0
    paseo publish berth-planner 2.5.0 "$demo/work/yard/berth-planner-2.5.0.tgz" --author yard@harbour.example >/dev/null
    await 90 "berth-planner 2.5.0 in staging" live berth-planner 2.5.0 staging
    worn=$(approved berth-planner 2.5.0 "The yard says it is faster.")
    await 120 "the canary's end" into "$worn" undone
    for host in test-1 staging-1 staging-2; do echo "north-quay,+12" >"$demo/hosts/$host/pilots.csv"; done
    sed -i '/^mkdir -p/i [ "$PASEO_ENVIRONMENT" != production ] || [ -f "$PASEO_HOST_FOLDER/pilots.csv" ] || { echo "pilots.csv is missing on $PASEO_HOST"; exit 1; }' \
        "$demo/work/tide-api/deploy/install.sh"
    commit tide-api "Read the pilots' corrections from the host"
    await 180 "tide-api 1.4.6 in staging" live tide-api 1.4.6 staging
    ticked tide-api 1.4.6
    missing=$(approved tide-api 1.4.6 "Corrections look right in staging.")
    await 90 "the undone deployment" into "$missing" undone
    git_as developer -C "$demo/work/tide-api" revert --no-edit HEAD >/dev/null
    PASEO_PUSHER=developer git_as developer -C "$demo/work/tide-api" push -q origin HEAD:main 2>/dev/null
    await 180 "tide-api 1.4.7 in staging" live tide-api 1.4.7 staging
    ticked tide-api 1.4.7
    promote tide-api 1.4.7 >"$demo/waiting"
    say "a branch with a preview of its own, and what holds and closes"
    git_as developer -C "$demo/work/tide-api" checkout -q -b feature/night-tides
    echo "Night tides: shown in darker ink." >>"$demo/work/tide-api/README"
    commit tide-api "Show night tides" feature/night-tides
    git_as developer -C "$demo/work/tide-api" checkout -q main
    await 180 "the preview" previewed
    as release-engineer hold quay-board --in staging --reason "colours are being judged on the quay until Friday" >/dev/null
    say "a closed period, an approval of two, a checklist that is half ticked"
    regatta >"$demo/environments-closed.yaml"
    as admin environment load "$demo/environments-closed.yaml" >/dev/null
    as approver-1 approve deployment "$(cat "$demo/waiting")" --comment "Compared both boards; heights agree." >/dev/null
    echo "Datum: lowest astronomical tide." >>"$demo/work/tide-api/README"
    commit tide-api "Say which datum heights refer to"
    await 180 "tide-api 1.4.8 in staging" live tide-api 1.4.8 staging
    as tester tick passage "$(passage tide-api 1.4.8)" "Board shows today's high water" --note "18:40, as in the printed tables" >/dev/null
}

# Two that belong together go into production as one; the second fails there, so both come back.
set_undone() {
    install=$demo/work/quay-board/deploy/install.sh
    sed -i '/^mkdir -p/i [ "$PASEO_ENVIRONMENT" != production ] || { echo "large.ttf is missing on $PASEO_HOST: the big board would be blank"; exit 1; }' "$install"
    commit quay-board "Set the big board in a larger face"
    await 120 "quay-board 0.9.3 in staging" live quay-board 0.9.3 staging
    as release-engineer set make evening tide-api=1.4.5 quay-board=0.9.3 >/dev/null
    first=$(as release-engineer set promote evening --to production --comment "The board shows the new heights" --output json |
        python3 -c 'import json, sys; print(json.load(sys.stdin)["parts"][0]["deployment"])')
    for approver in approver-1 approver-2; do as $approver approve deployment "$first" --comment "Looked at both in staging." >/dev/null; done
    await 180 "the set's end" set_is evening undone
    git_as developer -C "$demo/work/quay-board" revert --no-edit HEAD >/dev/null
    PASEO_PUSHER=developer git_as developer -C "$demo/work/quay-board" push -q origin HEAD:main 2>/dev/null
    await 120 "quay-board 0.9.4 in staging" live quay-board 0.9.4 staging
}

# set_is NAME STATUS: whether its newest promotion is.
set_is() { paseo set show "$1" --output json | python3 -c 'import json, sys; sys.exit(json.load(sys.stdin)["promotions"][0]["status"] != sys.argv[1])' "$2"; }

# The environments, with production closed for the next six hours.
regatta() {
    python3 - "$demo/environments.yaml" <<'PYTHON'
import datetime, sys
now = datetime.datetime.now(datetime.timezone.utc).replace(minute=0, second=0, microsecond=0)
stamp = lambda time: time.strftime("%Y%m%dT%H%M%SZ")
calendar = ["BEGIN:VCALENDAR", "VERSION:2.0", "PRODID:-//harbour//calendar//EN", "BEGIN:VEVENT", "UID:regatta", "DTSTAMP:" + stamp(now), "DTSTART:" + stamp(now),
            "DTEND:" + stamp(now + datetime.timedelta(hours=6)), "SUMMARY:Regatta", "END:VEVENT", "BEGIN:VEVENT", "UID:year-end", "DTSTAMP:" + stamp(now),
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

# A commit whose change can be seen: the next of a few colour themes.
change_theme() {
    work=$demo/work/quay-board
    [ -d "$work" ] || die "the demo is not there yet; run script/demo"
    case $(sed -n 's/^name=//p' "$work/theme.sh") in
    harbour-green) next="name=evening-ice ground=#12323c ink=#d8ebf0" ;;
    evening-ice) next="name=low-sun ground=#5c3a12 ink=#fff3d0" ;;
    *) next="name=harbour-green ground=#143029 ink=#e2ede8" ;;
    esac
    # shellcheck disable=SC2086
    { echo "# The board's colours; sourced by build.sh."; printf '%s\n' $next; } >"$work/theme.sh"
    commit quay-board "Paint the board in $(sed -n 's/^name=//p' "$work/theme.sh")"
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
  script/demo --change          a commit to quay-board; watch it walk: script/paseo where quay-board
  script/paseo why tide-check#3                 the chain of causes, back to the push
  script/paseo why tide-model#3 --forward       everything that it led to
  script/paseo why tide-api                     what happened lately, and why others did not start
  script/paseo approve deployment $(cat "$demo/waiting") --service approver-2 --comment "Compared with staging; heights agree."
  script/paseo clock forward 6h --service admin   the regatta is over: what waited goes on by itself
  script/paseo tick passage $(passage tide-api 1.4.8) "Old links still work" --service tester

Stop it with script/demo --stop.
TEXT
}
