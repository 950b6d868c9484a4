-- A passage whose version failed a test of what is live: it does not go on by itself, and nothing newer waits for it.
alter table passage add column test_failed_at datetime(6) null, add column test_failure varchar(2000) null;
