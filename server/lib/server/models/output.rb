# frozen_string_literal: true

module Server
  # One file or sequence of an order, and how far it is. stage: frames while they are
  # rendered, ending while the whole is encoded and checked.
  class Output < Record
    OVER = %w[done cancelled failed].freeze

    belongs_to :order, inverse_of: :outputs
    belongs_to :shot, optional: true

    # @return [Mordant::Deliver::Sheet]
    def made_as
      @made_as ||= Mordant::Deliver::Sheet.new(sheet, width: order.cut.project.width, height: order.cut.project.height)
    end

    # @return [String] absolute
    def file = File.join(File.realpath(Settings.delivery), path)

    # @param stretch [Stretch] that it is of
    # @return [Mordant::Deliver::SequenceWriter, Mordant::Deliver::VideoWriter]
    def writer(stretch = Stretch.new(order, shot_id))
      return Mordant::Deliver::SequenceWriter.new(made_as, path: file, start: stretch.start, first: 0, number: (stretch.first_number if made_as.numbers == "source")) if made_as.format.sequence?

      Mordant::Deliver::VideoWriter.new(made_as, path: file, rate: order.cut.project.rate, first: 0)
    end

    def over? = OVER.include?(status)

    # Stops it: at once when nothing of it is being written, else at the next frame.
    def cancel
      with_lock do
        next if over?

        busy = status == "running" && (stage == "ending" || Part.of(order, shot_id).where(status: "running").exists?)
        busy ? update!(cancelling: true) : cancelled
      end
    end

    # Nothing of it is left.
    def cancelled
      throw_away
      update!(status: "cancelled", finished_at: Time.now)
    end

    # Makes place for its frames, or goes on with those that are there; not with frames whose
    # source was another one.
    #
    # @param stretch [Stretch] that it is of
    # @raise [Mordant::Error, SystemCallError]
    def begin_with(stretch)
      now = stretch.sources
      replaced = sources.keys.reject { |source| sources[source] == now[source] }
      writing = writer(stretch)
      writing.forget(stretch.frames_of(replaced)) && forget_found if replaced.any?
      Mordant::Deliver::Naming.place(Settings.delivery, path) unless started_at
      writing.open
      update!(status: "running", stage: "frames", message: nil, started_at: Time.now, sources: now)
    end

    # A source was written again while frames were made of it.
    class Replaced < Mordant::MediaError; end

    # @param now [Hash{String => Array<String>}] see Stretch#sources
    # @raise [Replaced] of a source that is not the one it began with
    def hold_to_sources(now)
      replaced = sources.keys.find { |path| now[path] != sources[path] } or return

      raise Replaced.new(Names.shown(replaced), "the file was replaced while frames were made of it; what was made is thrown away. Try again, and all frames are made of the file that is there now")
    end

    # What was made stays for another try, but not where it would mix two sources.
    #
    # @param error [StandardError, String]
    def fail(error)
      update!(status: "failed", message: error.is_a?(String) ? error : Complaint.of(error), finished_at: Time.now)
      throw_away if error.is_a?(Replaced)
    end

    # Tries again what failed or was cancelled; what is there already stays.
    #
    # @raise [Mordant::ParameterError] of one that is done or going on
    def retry
      raise Mordant::ParameterError.new(path: "output", expected: "one that failed or was cancelled", found: status) unless %w[failed cancelled].include?(status)

      transaction do
        update!(status: "waiting", stage: nil, message: nil, cancelling: false, finished_at: nil)
        Part.of(order, shot_id).where.not(status: "running").update_all(status: "waiting", done: 0)
        Work.go_on(order)
      end
    rescue ActiveRecord::RecordNotUnique
      raise Mordant::ParameterError.new(path: "name", expected: "a name no other output has", found: path)
    end

    def to_h
      seconds = started_at && ((finished_at || Time.now) - started_at).round(1)
      {id:, order: order_id, shot: shot_id, kind:, label: made_as.format.label, statement: made_as.statement, path:, status:, stage:, frames:, done:,
       message:, cancelling:, seconds:, started: started_at&.iso8601(3), passed: report && report["passed"], notices: report && report["notices"]&.size}
    end

    private

    # What was made of it goes, and what was found out of that.
    def throw_away
      update!(done: 0)
      writer.abandon
      FileUtils.rm_f(file) unless made_as.format.sequence?
      forget_found
    end

    def forget_found = Part.of(order, shot_id).update_all(["found = found - ?", id.to_s])
  end
end
