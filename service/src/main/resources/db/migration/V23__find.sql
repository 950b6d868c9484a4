-- Found by the beginning of a number, a commit or a digest.
alter table version add key (number), add key (commit_id), add key (digest);
alter table run add key (commit_id);
alter table version_artifact add key (digest);
