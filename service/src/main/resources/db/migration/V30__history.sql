-- What history is looked for by.
alter table live_stretch add key (from_at);
alter table deployment add key (ended_at), add key (requested_by, ended_at);
alter table hold add key (at), add key (lifted_at);
alter table closure add key (at), add key (lifted_at);
alter table audit_entry add key of_what (what, at_second);
