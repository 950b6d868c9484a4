-- What is added up of lead times is read without the columns that it was made from.
alter table lead_time add key added_up (live_at, packed);
