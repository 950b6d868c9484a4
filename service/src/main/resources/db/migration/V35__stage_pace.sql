-- Attempts at stages are added up by when they ended.
alter table stage add key (ended_at);
