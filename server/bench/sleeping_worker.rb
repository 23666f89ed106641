# frozen_string_literal: true

# A worker that sleeps through its frames instead of making them; all it tells the database is as ever.
require_relative "../lib/server"

Server::LOADER.eager_load
Mordant::LOADER.eager_load
Server::Database.connect(pool: 24)

# In the place of what renders.
module Sleeping
  FRAME = Float(ENV.fetch("MORDANT_FRAME"))

  def render
    outputs = active
    return stop("failed") if outputs.empty?

    @findings = Mordant::Deliver::Findings.new(@part.found)
    (1..@part.frames).each do |done|
      sleep FRAME
      report(done, outputs)
    end
    @part.update!(status: "done", done: @part.frames, found: @findings.to_h)
    count_done
    true
  end
end

Server::PartJob.prepend(Sleeping)
Server::FinishJob.prepend(Module.new { def work(*) = nil })
