# frozen_string_literal: true

module Server
  # Renders a part of a stretch for all outputs of it. A worker that was killed leaves it to
  # another one, which goes on after the frames that are there.
  class PartJob < CountedJob
    self.maximum_retry_count = 2

    REPORT_EVERY = 0.25 # seconds

    # The order was paused, or an output is not wanted any more.
    class Changed < StandardError; end

    def work(part_id)
      @part = Part.find_by(id: part_id)
      return if @part.nil? || @part.status == "done" || @part.order.paused

      @order = @part.order
      @stretch = Stretch.new(@order, @part.shot_id)
      @part.update!(status: "running")
      done = render until done || @part.reload.status != "running"
      Work.conclude(@order, @part.shot_id)
    rescue Mordant::Error, SystemCallError => e
      give_up(e)
    end

    def set_aside(part_id)
      @part = Part.find_by(id: part_id) or return

      @order = @part.order
      give_up(Mordant::Error.new(REASON))
    end

    private

    # @return [Boolean] whether all is there
    def render
      outputs = active
      return stop("failed") if outputs.empty?

      writers = outputs.to_h { |output| [output.id, output.writer(@stretch)] }
      hold_to_sources(outputs)
      @findings = Mordant::Deliver::Findings.new(@part.found)
      draw(outputs, writers)
      pass(outputs, writers).run(first: @part.first, count: @part.frames) { |frame| report(frame - @part.first + 1, outputs) }
      Memory.current.give_back # before encoders need theirs
      writers.each_value.map { |writer| Thread.new { writer.seal(@part.first, @part.frames) }.tap { |thread| thread.report_on_exception = false } }.each(&:join)
      hold_to_sources(outputs)
      @part.update!(status: "done", done: @part.frames, found: @findings.to_h)
      count_done
      true
    rescue Changed
      stop("waiting") if @order.reload.paused
      false
    rescue SystemCallError
      # the folder of an output that was cancelled meanwhile is gone; the others go on
      raise unless cancelled?(outputs)

      false
    end

    # Frames that were made before and after a source was replaced are not to be mixed.
    def hold_to_sources(outputs)
      now = @stretch.sources
      outputs.each { |output| output.hold_to_sources(now) }
    end

    def cancelled?(outputs) = Output.where(id: outputs.map(&:id)).where("cancelling OR status = 'cancelled'").exists?

    def stop(status)
      @part.update!(status:)
      true
    end

    def active
      outputs = @order.outputs.where(shot_id: @part.shot_id, status: "running", stage: "frames").to_a
      gone, kept = outputs.partition(&:cancelling)
      gone.each(&:cancelled)
      kept
    end

    # What ffmpeg can render alone comes first, output by output.
    def draw(outputs, writers)
      outputs.each_with_index do |output, index|
        lattices = Lattices.new(output, @stretch)
        lattices.draw(writers[output.id], @part.range, @findings) { |done| report((index * @part.frames + done) / outputs.size, outputs) }
      end
    end

    def pass(outputs, writers)
      described = ->(frame) { @stretch.describe(frame, name: File.basename(outputs.first.path, ".*"), written: @order.created_at) }
      Mordant::Deliver::Pass.new(programme: @stretch.programme(outputs.map(&:made_as)), space: @order.cut.project.space, writers:, skip: @order.skip, describe: described, bind: @stretch.method(:bound), findings: @findings)
    end

    # Progress, now and then; and whether to go on.
    def report(done, outputs)
      now = Process.clock_gettime(Process::CLOCK_MONOTONIC)
      return if @reported && now - @reported < REPORT_EVERY && done < @part.frames

      @reported = now
      got_further if done > @part.done
      more = [done - @part.done, 0].max
      @part.update!(done: @part.done + more, found: @findings.to_h)
      count_more(more, outputs)
      raise Changed if @order.reload.paused || cancelled?(outputs)
    end

    # Progress on the way: the parts of a long programme are many to be added up, which #count_done does at the end of each.
    def count_more(more, outputs) = Output.where(id: outputs.map(&:id), status: "running", stage: "frames").update_all(["done = least(frames, done + ?)", more])

    # What parts have, added up.
    def count_done
      done = Part.of(@order, @part.shot_id).sum(:done)
      @order.outputs.where(shot_id: @part.shot_id, status: "running", stage: "frames").update_all(["done = least(frames, ?)", done])
    end

    # What is good stays, so that a retry has only the rest to do.
    def give_up(error)
      Part.of(@order, @part.shot_id).where(status: %w[running waiting]).update_all(status: "failed")
      @order.outputs.where(shot_id: @part.shot_id, status: "running", stage: "frames").each { |output| output.fail(error) }
    end
  end
end
