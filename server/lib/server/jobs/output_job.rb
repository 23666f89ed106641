# frozen_string_literal: true

module Server
  # Writes one output. A worker that was killed leaves it to the next one, which
  # goes on after the frames that are finished.
  class OutputJob < Que::Job
    self.maximum_retry_count = 2

    REPORT_EVERY = 0.25 # seconds

    # Somebody asked for it to stop.
    class Cancelled < StandardError; end

    def run(output_id)
      @output = Output.fetch(output_id)
      return if @output.over?

      resuming = @output.status == "running"
      @output.update!(status: "running", message: nil, started_at: Time.now)
      finish(open_kind(resuming))
    rescue Mordant::Error, SystemCallError => e
      @output&.update!(status: "failed", message: complaint(e), finished_at: Time.now)
    end

    private

    def finish(kind)
      render(kind)
      kind.close
      @output.update!(status: "done", done: @output.frames, finished_at: Time.now)
    rescue Cancelled
      kind.abandon
      @output.update!(status: "cancelled", finished_at: Time.now)
    rescue Mordant::Error, SystemCallError
      kind.abandon unless kind.class.sequence? # whole frames are worth keeping
      raise
    end

    def open_kind(resuming)
      project = cut.project
      path = resuming ? @output.file : Mordant::Deliver::Naming.place(Settings.delivery, @output.path)
      start = cut.timecode(@output.first)
      @output.kind_class.new(Mordant::Deliver::Kind::Job.new(path:, width: project.width, height: project.height,
        rate: project.rate, start:, reel: @output.shot&.clip&.reel, range: project.output_range, resume: resuming))
    end

    def render(kind)
      cut.loaded_shots
      ready = kind.finished_frames
      view = cut.project.output(kind.class.view)
      bulk = ready.zero? && bulk(kind, view)
      return kind.bulk(bulk, @output.frames) { |done| report(done) } if bulk

      cut.programme.each(first: @output.first + ready, count: @output.frames - ready) do |frame, record|
        kind.write(view.run(frame), record - @output.first)
        report(record - @output.first + 1)
      end
    end

    # @return [Mordant::Deliver::Bulk, nil] where the output is of one shot alone and a
    #   lattice would not show
    def bulk(kind, view)
      return unless kind.class.bits

      layers = cut.timeline.segments(@output.first, @output.frames)
      return unless layers.one? && layers.first.outgoing.nil?

      shot = layers.first.incoming
      made = Mordant::Deliver::Bulk.new(source: cut.source_of(cut.shot(shot.key)), output: view, bits: kind.class.bits,
        first: shot.source_at(@output.first), count: @output.frames)
      made if made.fits?
    end

    # Progress, now and then; and whether to go on.
    def report(done)
      now = Process.clock_gettime(Process::CLOCK_MONOTONIC)
      return if @reported && now - @reported < REPORT_EVERY && done < @output.frames

      @reported = now
      @output.reload
      raise Cancelled if @output.cancelling

      @output.update!(done:)
    end

    def cut = @cut ||= @output.order.cut

    def complaint(error)
      case error
      when Errno::ENOSPC then "the disk is full; make room and order it again, finished frames are kept"
      when Errno::EACCES, Errno::EROFS then "the delivery folder cannot be written to: #{error.message}"
      else error.message
      end
    end
  end
end
