-- What history is looked for by.
alter table live_stretch add key (from_at);
alter table deployment add key (ended_at),
  add column never_live_end datetime(6) as (if(live_at is null, ended_at, null)) virtual, add key (never_live_end);
alter table hold add key (at), add key (lifted_at);
alter table closure add key (at), add key (lifted_at);
alter table audit_entry add key of_what (what, at_second);
-- Entries of the trail come by when they were written, whatever they are looked for by.
alter table audit_entry add key of_who (who, at_second), add key of_subject (subject, at_second),
  add key of_component (component, at_second), add key of_environment (environment, at_second),
  drop key who, drop key what, drop key subject, drop key component, drop key environment;
