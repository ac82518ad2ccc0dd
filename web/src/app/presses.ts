/** Every kind of press that may wait in the outbox is known wherever one is sent. */
import "../evening/api";
import "../workshop/defectPress";
import "../flights/api";
import "../jobs/kit";
import "../outbox/photos";
import "../spraying/send";
import "../walkround/api";
