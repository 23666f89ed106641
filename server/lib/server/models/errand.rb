# frozen_string_literal: true

module Server
  # Something a person asked for that takes longer than an answer may: a worker does it, and
  # its end is told as an event.
  class Errand < Record
    LIVE = %w[waiting running].freeze
    KEPT = 3 # of a kind, of a cut
    PRIORITY = 50 # before what is delivered, as somebody waits for it

    # What it is about: made with the cut and the wish, whose faults it raises then; has
    # count, call(errand), which tells how far it is and returns the result, and forget(errand).
    KINDS = {"freeze" => Errands::Freeze, "export" => Errands::Export, "package" => Errands::Pack, "changes" => Errands::CutUp, "compare" => Errands::Compare, "track" => Errands::Track, "measure" => Errands::Measure}.freeze

    belongs_to :cut

    # @param wish [Hash] as its kind reads it
    # @return [Errand] queued; older ones go
    # @raise [Mordant::Error] of a wish that cannot be
    def self.place(cut, kind, wish)
      errand = new(cut:, kind:, wish: JSON.parse(wish.to_json))
      errand.count = errand.work.count
      transaction do
        errand.save!
        past = where(cut:, kind:).where.not(id: errand.id)
        past.where(status: LIVE).update_all(status: "cancelled") if errand.work.single?
        past.where.not(status: LIVE).order(id: :desc).offset(KEPT - 1).each(&:forget)
        ErrandJob.enqueue(errand.id, job_options: {priority: PRIORITY})
      end
      errand
    end

    # @return [Object] see KINDS
    # @raise [Mordant::Error]
    def work = @work ||= KINDS.fetch(kind).new(cut, wish)

    # @return [Boolean] whether it is still wanted
    def live? = Errand.exists?(id:, status: LIVE)

    def cancel = Errand.where(id:, status: LIVE).update_all(status: "cancelled")

    def forget
      KINDS.fetch(kind).forget(self)
      destroy!
    end

    def to_h = {id:, cut: cut_id, kind:, status:, count:, done:, result:, message:}
  end
end
