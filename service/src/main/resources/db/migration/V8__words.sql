-- Words of now: an agent offers what stages want, and a version has a stretch for which it was live and healthy.
-- The release before still finds its own names: a column that follows, and a view.
alter table agent change column tags offers json not null, add column tags json as (offers) virtual;
rename table soak to stretch;
create view soak as select place_id, version_id, since_at, longest_micros from stretch;
grant select, insert, update, delete on stretch to '${service_user}'@'127.0.0.1';
