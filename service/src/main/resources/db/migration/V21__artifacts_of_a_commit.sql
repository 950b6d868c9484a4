-- A component of which nothing is built has the commit's files as its artifact, which no stage made.
alter table run_output modify stage_id bigint;
